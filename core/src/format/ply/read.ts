import { decodeSrgb } from '../../colour/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { LeftOut } from '../left-out.ts';
import { TriangleCount } from '../mesh.ts';
import { Extent } from '../origin.ts';
import { PartBuilder, type Corner } from '../part-builder.ts';
import { PLAIN_MATERIAL, type ReadModel } from '../scene-model.ts';
import { readHeader, SCALARS, type PlyElement, type PlyHeader } from './header.ts';

/**
 * Reads a PLY mesh, text or binary: faces of any number of corners, strips, vertex colours and texture places.
 * Source of the layout: "The PLY polygon file format" (Turk 1994), from memory.
 * @throws FormatError
 */
export function readPly(bytes: Uint8Array, fileName: string): ReadModel {
  const header = readHeader(bytes, fileName);
  checkLength(bytes, header, fileName);
  const source =
    header.format === 'ascii' ? new TextSource(bytes, header.end, fileName) : new ByteSource(bytes, header, fileName);
  return new PlyReader(header, source, fileName).read();
}

/** Hands out one value after the other. */
interface Source {
  next(type: string, what: string): number;
}

class PlyReader {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly colors: number[] = [];
  private readonly uvs: number[] = [];
  private readonly extent = new Extent();
  private readonly leftOut = new LeftOut();
  private readonly count: TriangleCount;
  private builder: PartBuilder | null = null;

  constructor(
    private readonly header: PlyHeader,
    private readonly source: Source,
    private readonly fileName: string,
  ) {
    this.count = new TriangleCount(fileName);
  }

  read(): ReadModel {
    for (const element of this.header.elements) for (let i = 0; i < element.count; i += 1) this.element(element, i);
    const origin = this.extent.origin();
    const part = this.builder?.finish(origin, this.fileName);
    if (!part) throw noGeometry(this.fileName);
    return {
      parts: [part],
      materials: [
        this.colors.length > 0
          ? { ...PLAIN_MATERIAL, name: 'Vertex colours', color: [1, 1, 1] }
          : { ...PLAIN_MATERIAL },
      ],
      textures: [],
      cameras: [],
      declares: { metresPerUnit: null, up: null },
      notes: this.leftOut.notes(),
      origin,
    };
  }

  private element({ name, properties }: PlyElement, index: number): void {
    const values = new Map<string, number>();
    for (const property of properties) {
      const what = `${name} ${index + 1}`;
      if (property.count === undefined) {
        values.set(property.name, this.source.next(property.type, what));
        continue;
      }
      const length = this.source.next(property.count, what);
      if (!Number.isInteger(length) || length < 0 || length > 1e7)
        throw new FormatError(
          'damaged',
          this.fileName,
          `${what} has a list of ${length} numbers.`,
          'Export the model again.',
        );
      const list = Array.from({ length }, () => this.source.next(property.type, what));
      if (/^vert(ex|ices)_ind(ex|ices)$/.test(property.name)) {
        if (name === 'tristrips') this.strip(list, what);
        else this.face(list, what);
      }
    }
    if (name === 'vertex') this.vertex(values, properties, index);
    else if (name === 'edge') this.leftOut.add('lines');
  }

  private vertex(values: ReadonlyMap<string, number>, properties: PlyElement['properties'], index: number): void {
    const get = (...names: string[]) => names.map((name) => values.get(name)).find((value) => value !== undefined);
    const [x, y, z] = [get('x'), get('y'), get('z')];
    if (![x, y, z].every((value) => Number.isFinite(value)))
      throw new FormatError(
        'damaged',
        this.fileName,
        `vertex ${index + 1} is at ${x}, ${y}, ${z}.`,
        'Export the model again.',
      );
    this.positions.push(x!, y!, z!);
    this.extent.add(x!, y!, z!);
    const normal = [get('nx'), get('ny'), get('nz')];
    if (normal.every((value) => value !== undefined)) this.normals.push(...(normal as number[]));
    const place = [get('s', 'u', 'texture_u'), get('t', 'v', 'texture_v')];
    if (place.every((value) => value !== undefined)) this.uvs.push(place[0]!, 1 - place[1]!);
    const color = [
      get('red', 'diffuse_red', 'r'),
      get('green', 'diffuse_green', 'g'),
      get('blue', 'diffuse_blue', 'b'),
    ];
    if (color.every((value) => value !== undefined)) {
      const type = properties.find((property) => /^(diffuse_)?r(ed)?$/.test(property.name))!.type;
      const scale = type.includes('float') || type.includes('double') ? 1 : SCALARS[type]!.bytes === 1 ? 255 : 65_535;
      this.colors.push(...(color as number[]).map((value) => decodeSrgb(Math.min(1, Math.max(0, value / scale)))));
    }
  }

  private face(list: readonly number[], what: string): void {
    this.count.add(Math.max(0, list.length - 2));
    if (list.length < 3) {
      this.leftOut.offered(1);
      this.leftOut.add('empty faces');
      return;
    }
    (this.builder ??= this.makeBuilder()).addFace(list.map((vertex) => this.corner(vertex, what)));
  }

  /** A strip turns every second triangle; −1 begins a new one. */
  private strip(list: readonly number[], what: string): void {
    let from = 0;
    for (let i = 0; i < list.length; i += 1) {
      if (list[i]! < 0) {
        from = i + 1;
        continue;
      }
      if (i - from < 2) continue;
      const [a, b, c] = [list[i - 2]!, list[i - 1]!, list[i]!];
      this.face((i - from) % 2 === 0 ? [a, b, c] : [b, a, c], what);
    }
  }

  private corner(vertex: number, what: string): Corner {
    const { count } = this.header.elements.find(({ name }) => name === 'vertex') ?? { count: 0 };
    if (!Number.isInteger(vertex) || vertex < 0 || vertex >= count)
      throw new FormatError(
        'damaged',
        this.fileName,
        `${what} names vertex ${vertex}, and there are ${count}.`,
        'Export the model again.',
      );
    const has = (list: readonly number[], width: number) => (list.length >= width * (vertex + 1) ? vertex : -1);
    return { position: vertex, uv: has(this.uvs, 2), normal: has(this.normals, 3) };
  }

  private makeBuilder(): PartBuilder {
    const { positions, uvs, normals, colors } = this;
    return new PartBuilder('Mesh', 0, { positions, uvs, normals, colors }, this.leftOut);
  }
}

class ByteSource implements Source {
  private readonly view: DataView;
  private readonly little: boolean;
  private at: number;

  constructor(
    bytes: Uint8Array,
    { format, end }: PlyHeader,
    private readonly fileName: string,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    this.little = format === 'binary_little_endian';
    this.at = end;
  }

  next(type: string, what: string): number {
    const scalar = SCALARS[type]!;
    if (this.at + scalar.bytes > this.view.byteLength) throw endsIn(what, this.fileName);
    const value = scalar.read(this.view, this.at, this.little);
    this.at += scalar.bytes;
    return value;
  }
}

class TextSource implements Source {
  private readonly text: string;
  private readonly word = /\S+/g;

  constructor(
    bytes: Uint8Array,
    end: number,
    private readonly fileName: string,
  ) {
    this.text = new TextDecoder('latin1').decode(bytes.subarray(end));
  }

  next(_: string, what: string): number {
    const match = this.word.exec(this.text);
    if (!match) throw endsIn(what, this.fileName);
    const value = Number(match[0]);
    if (Number.isNaN(value))
      throw new FormatError(
        'damaged',
        this.fileName,
        `a number of ${what} is “${match[0].slice(0, 30)}”.`,
        'Export the model again.',
      );
    return value;
  }
}

const endsIn = (what: string, fileName: string) =>
  new FormatError(
    'truncated',
    fileName,
    `it ends after ${what}, before everything it announces.`,
    'The copy or export stopped early; get the file again.',
  );

/** What is announced must fit into the file before memory is taken for it. */
function checkLength(bytes: Uint8Array, { format, elements, end }: PlyHeader, fileName: string): void {
  const body = bytes.byteLength - end;
  const least = elements.reduce(
    (sum, { count, properties }) =>
      sum +
      count *
        // Text takes at least a digit and a space a value.
        (format === 'ascii'
          ? 2 * properties.length
          : properties.reduce((bytesOf, property) => bytesOf + SCALARS[property.count ?? property.type]!.bytes, 0)),
    0,
  );
  if (body < least - 1)
    throw new FormatError(
      'truncated',
      fileName,
      `it ends after ${bytes.byteLength} bytes, before everything it announces.`,
      'The copy or export stopped early; get the file again.',
    );
}
