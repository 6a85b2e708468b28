import { FormatError } from '../errors.ts';

/** Scalar types of PLY 1.0 by both of their names: bytes, and how they are read. */
export const SCALARS: Record<string, { bytes: number; read: (view: DataView, at: number, little: boolean) => number }> =
  Object.fromEntries(
    (
      [
        ['char', 'int8', 1, (v, a) => v.getInt8(a)],
        ['uchar', 'uint8', 1, (v, a) => v.getUint8(a)],
        ['short', 'int16', 2, (v, a, l) => v.getInt16(a, l)],
        ['ushort', 'uint16', 2, (v, a, l) => v.getUint16(a, l)],
        ['int', 'int32', 4, (v, a, l) => v.getInt32(a, l)],
        ['uint', 'uint32', 4, (v, a, l) => v.getUint32(a, l)],
        ['float', 'float32', 4, (v, a, l) => v.getFloat32(a, l)],
        ['double', 'float64', 8, (v, a, l) => v.getFloat64(a, l)],
      ] as const satisfies readonly [string, string, number, (view: DataView, at: number, little: boolean) => number][]
    ).flatMap(([old, name, bytes, read]) => [
      [old, { bytes, read }],
      [name, { bytes, read }],
    ]),
  );

export interface PlyProperty {
  name: string;
  type: string;
  /** Type of the count, for lists. */
  count?: string;
}

export interface PlyElement {
  name: string;
  count: number;
  properties: PlyProperty[];
}

export interface PlyHeader {
  format: 'ascii' | 'binary_little_endian' | 'binary_big_endian';
  elements: PlyElement[];
  /** Byte at which the body begins. */
  end: number;
}

/** @throws FormatError naming what of the header is wrong */
export function readHeader(bytes: Uint8Array, fileName: string): PlyHeader {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 50_000));
  const end = /end_header[ \t]*\r?\n/.exec(head);
  if (!end) throw new FormatError('truncated', fileName, 'its header does not end.', 'Export the model again.');
  const header = head.slice(0, end.index);
  const format = /^format[ \t]+(\S+)[ \t]+1\.0/m.exec(header)?.[1];
  if (format !== 'ascii' && format !== 'binary_little_endian' && format !== 'binary_big_endian')
    throw new FormatError(
      'unsupported',
      fileName,
      `its format is “${format ?? 'not given'}”.`,
      'Export it as PLY 1.0.',
    );
  const damaged = (reason: string) => new FormatError('damaged', fileName, reason, 'Export the model again.');
  const elements: PlyElement[] = [];
  for (const line of header.split(/\r?\n/)) {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'element') {
      const count = Number(rest[1]);
      if (!Number.isSafeInteger(count) || count < 0) throw damaged(`it announces “${rest[1]}” of ${rest[0]}.`);
      elements.push({ name: rest[0]!, count, properties: [] });
    } else if (word === 'property') {
      const element = elements.at(-1);
      if (!element) throw damaged('its header gives a property before any element.');
      const list = rest[0] === 'list';
      const property = list ? { count: rest[1]!, type: rest[2]!, name: rest[3]! } : { type: rest[0]!, name: rest[1]! };
      for (const type of list ? [rest[1]!, rest[2]!] : [rest[0]!])
        if (!SCALARS[type]) throw damaged(`the type “${type}” of ${element.name} is none of PLY 1.0.`);
      element.properties.push(property);
    }
  }
  const vertex = elements.find(({ name }) => name === 'vertex');
  for (const axis of ['x', 'y', 'z'])
    if (vertex && !vertex.properties.some(({ name }) => name === axis)) throw damaged(`its vertices have no ${axis}.`);
  return { format, elements, end: end.index + end[0].length };
}
