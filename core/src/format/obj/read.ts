import { decodeSrgb } from '../../colour/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { LeftOut } from '../left-out.ts';
import { TriangleCount } from '../mesh.ts';
import { Extent } from '../origin.ts';
import { PartBuilder, type Corner } from '../part-builder.ts';
import { PLAIN_MATERIAL, type ReadModel } from '../scene-model.ts';
import { textOf } from '../text/decode.ts';
import { placeUvs, type TexturePlace } from '../texture-place.ts';
import { readLibraries } from './materials.ts';

/**
 * Reads an OBJ with the materials and textures that lie beside it.
 * Source of the layout: "Object Files (.obj)", appendix B1 of the format's public description, from memory.
 * @param files everything that came with it, by path; `path` is the OBJ's own
 * @throws FormatError
 */
export function readObj(files: ReadonlyMap<string, Uint8Array>, path: string, fileName: string): ReadModel {
  return new ObjReader(files, path, fileName).read(textOf(files.get(path)!));
}

class ObjReader {
  private readonly positions: number[] = [];
  private readonly uvs: number[] = [];
  private readonly normals: number[] = [];
  private readonly colors: number[] = [];
  private readonly data = {
    positions: this.positions,
    uvs: this.uvs,
    normals: this.normals,
    colors: this.colors,
  };
  private readonly extent = new Extent();
  private readonly leftOut = new LeftOut();
  private readonly count: TriangleCount;
  private readonly builders = new Map<string, PartBuilder>();
  private readonly materialIndex = new Map<string, number>();
  private readonly materialNames: string[] = [];
  private readonly libraries: string[] = [];
  private object = '';
  private group = '';
  private material = '';
  private current: PartBuilder | null = null;

  constructor(
    private readonly files: ReadonlyMap<string, Uint8Array>,
    private readonly path: string,
    private readonly fileName: string,
  ) {
    this.count = new TriangleCount(fileName);
  }

  read(text: string): ReadModel {
    let line = 0;
    let start = 0;
    let held = '';
    while (start <= text.length) {
      let end = text.indexOf('\n', start);
      if (end < 0) end = text.length;
      line += 1;
      const row = held + text.slice(start, end).trimEnd();
      start = end + 1;
      // A line that ends with a backslash goes on in the next.
      held = row.endsWith('\\') ? `${row.slice(0, -1)} ` : '';
      if (!held) this.row(row.trimStart(), line);
    }
    const model: ReadModel = {
      parts: [],
      materials: [],
      textures: [],
      cameras: [],
      declares: { metresPerUnit: null, up: null },
      notes: [],
      origin: this.extent.origin(),
    };
    const library = readLibraries(this.libraries, this.files, this.path, model);
    const missing: string[] = [];
    const places: (TexturePlace | null)[] = [];
    model.materials = this.materialNames.map((name) => {
      const known = library.get(name);
      if (!known && name && library.size > 0) missing.push(name);
      places.push(known?.place ?? null);
      return known?.material ?? { ...PLAIN_MATERIAL, name: name || 'Plain' };
    });
    if (missing.length > 0)
      model.notes.push(
        `${missing.length === 1 ? 'The material' : 'The materials'} ${missing
          .slice(0, 5)
          .map((name) => `“${name}”`)
          .join(
            ', ',
          )}${missing.length > 5 ? ` and ${missing.length - 5} more` : ''} did not come with the file: plain surfaces stand in.`,
      );
    for (const builder of this.builders.values()) {
      const part = builder.finish(model.origin!, this.fileName);
      if (part) model.parts.push({ ...part, uvs: placeUvs(part.uvs, places[part.material]) });
    }
    if (model.parts.length === 0) throw noGeometry(this.fileName);
    model.notes.push(...this.leftOut.notes());
    return model;
  }

  private row(row: string, line: number): void {
    const space = row.search(/\s/);
    const word = space < 0 ? row : row.slice(0, space);
    const rest = space < 0 ? '' : row.slice(space + 1).trim();
    switch (word) {
      case 'v':
        return this.vertex(rest, line);
      case 'vt': {
        const [u = 0, v = 0] = this.numbers(rest, line, 1);
        // The first row of a picture is at the top, and OBJ counts from the bottom.
        this.uvs.push(u, 1 - v);
        return;
      }
      case 'vn':
        this.normals.push(...this.numbers(rest, line, 3).slice(0, 3));
        return;
      case 'f':
      case 'fo':
        return this.face(rest.split(/\s+/), line);
      case 'l':
        return this.leftOut.add('lines');
      case 'p':
        return this.leftOut.add('points');
      case 'curv':
      case 'curv2':
      case 'surf':
        return this.leftOut.add('curves');
      case 'o':
        [this.object, this.group, this.current] = [rest, '', null];
        return;
      case 'g':
        [this.group, this.current] = [rest === 'default' ? '' : rest, null];
        return;
      case 'usemtl':
        [this.material, this.current] = [rest, null];
        return;
      case 'mtllib':
        this.libraries.push(rest);
        return;
    }
  }

  private vertex(rest: string, line: number): void {
    const numbers = this.numbers(rest, line, 3);
    this.positions.push(numbers[0]!, numbers[1]!, numbers[2]!);
    this.extent.add(numbers[0]!, numbers[1]!, numbers[2]!);
    // Colours follow the coordinates, as read off a screen (common practice, no source).
    if (numbers.length >= 6 && numbers.slice(3, 6).every((value) => value >= 0 && value <= 1)) {
      while (this.colors.length < this.positions.length - 3) this.colors.push(1);
      this.colors.push(...numbers.slice(3, 6).map(decodeSrgb));
    } else if (this.colors.length > 0) this.colors.push(1, 1, 1);
  }

  private numbers(rest: string, line: number, least: number): number[] {
    const numbers = rest.split(/\s+/).map(Number);
    if (rest === '' || numbers.length < least || !numbers.every(Number.isFinite))
      throw new FormatError(
        'damaged',
        this.fileName,
        `the numbers in line ${line} cannot be read (“${rest.slice(0, 60)}”).`,
        'Export the model again.',
      );
    return numbers;
  }

  private face(words: readonly string[], line: number): void {
    const corners = words.map((word) => this.corner(word, line));
    this.count.add(Math.max(0, corners.length - 2));
    if (corners.length < 3) {
      this.leftOut.offered(1);
      this.leftOut.add('empty faces');
      return;
    }
    (this.current ??= this.builder()).addFace(corners);
  }

  private corner(word: string, line: number): Corner {
    const [v, t, n] = word.split('/');
    const place = (text: string | undefined, count: number, what: string): number => {
      if (text === undefined || text === '') return -1;
      const named = Number(text);
      const at = named < 0 ? count + named : named - 1;
      if (!Number.isInteger(named) || at < 0 || at >= count)
        throw new FormatError(
          'damaged',
          this.fileName,
          `the face in line ${line} names ${what} ${text.slice(0, 20)}, and there are ${count}.`,
          'Export the model again.',
        );
      return at;
    };
    const position = place(v, this.positions.length / 3, 'vertex');
    if (position < 0)
      throw new FormatError(
        'damaged',
        this.fileName,
        `a corner of the face in line ${line} names no vertex (“${word.slice(0, 20)}”).`,
        'Export the model again.',
      );
    return {
      position,
      uv: place(t, this.uvs.length / 2, 'texture vertex'),
      normal: place(n, this.normals.length / 3, 'normal'),
    };
  }

  /** What collects faces of the present object, group and material. */
  private builder(): PartBuilder {
    const name =
      [this.object, this.group === this.object ? '' : this.group].filter(Boolean).join(' / ') || 'Unnamed part';
    const key = `${name}\n${this.material}`;
    let builder = this.builders.get(key);
    if (!builder) {
      let material = this.materialIndex.get(this.material);
      if (material === undefined)
        this.materialIndex.set(this.material, (material = this.materialNames.push(this.material) - 1));
      this.builders.set(key, (builder = new PartBuilder(name.slice(0, 500), material, this.data, this.leftOut)));
    }
    return builder;
  }
}
