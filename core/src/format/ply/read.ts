import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { FormatError, noGeometry } from '../errors.ts';
import { partFromGeometry } from '../mesh.ts';
import { PLAIN_MATERIAL, type ReadModel } from '../scene-model.ts';

const BYTES: Record<string, number> = {
  char: 1,
  int8: 1,
  uchar: 1,
  uint8: 1,
  short: 2,
  int16: 2,
  ushort: 2,
  uint16: 2,
  int: 4,
  int32: 4,
  uint: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

/** Reads a PLY mesh, text or binary, with vertex colours. @throws FormatError */
export function readPly(bytes: Uint8Array, fileName: string): ReadModel {
  checkHeader(bytes, fileName);
  const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
  let geometry;
  try {
    geometry = new PLYLoader().parse(buffer);
  } catch (error) {
    throw new FormatError('damaged', fileName, `it cannot be read (${(error as Error).message}).`, 'Export it again.');
  }
  if (!geometry.index?.count) throw noGeometry(fileName);
  const part = partFromGeometry(geometry, 'Mesh', 0, fileName);
  if (!part) throw noGeometry(fileName);
  const colored = part.colors !== null && part.colors !== undefined;
  return {
    parts: [part],
    materials: [
      {
        ...PLAIN_MATERIAL,
        ...(colored ? { name: 'Vertex colours', color: [1, 1, 1] as const } : {}),
      } as ReadModel['materials'][number],
    ],
    textures: [],
    cameras: [],
    declares: { metresPerUnit: null, up: null },
    notes: [],
  };
}

/** The header must be whole and the file at least as long as its fixed-size vertices and smallest faces take. */
function checkHeader(bytes: Uint8Array, fileName: string): void {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 20_000));
  const end = /end_header\r?\n/.exec(head);
  if (!end) throw new FormatError('truncated', fileName, 'its header does not end.', 'Export the model again.');
  const header = head.slice(0, end.index);
  const format = /format\s+(\S+)\s+1\.0/.exec(header)?.[1];
  if (format !== 'ascii' && format !== 'binary_little_endian' && format !== 'binary_big_endian')
    throw new FormatError(
      'unsupported',
      fileName,
      `its format is “${format ?? 'not given'}”.`,
      'Export it as PLY 1.0.',
    );
  let wanted = end.index + end[0].length;
  let lines = 0;
  let count = 0;
  for (const line of header.split(/\r?\n/)) {
    const [word, a, b, c] = line.trim().split(/\s+/);
    if (word === 'element') {
      count = Number(b);
      if (!Number.isSafeInteger(count) || count < 0)
        throw new FormatError('damaged', fileName, `it announces “${b}” of ${a}.`, 'Export the model again.');
      lines += count;
    } else if (word === 'property') wanted += count * (a === 'list' ? (BYTES[b!] ?? 1) : (BYTES[a!] ?? 1));
    void c;
  }
  const body = bytes.byteLength - end.index - end[0].length;
  // Text takes at least two characters a line.
  if (format === 'ascii' ? body < 2 * lines - 1 : bytes.byteLength < wanted)
    throw new FormatError(
      'truncated',
      fileName,
      `it ends after ${bytes.byteLength} bytes, before everything it announces.`,
      'The copy or export stopped early; get the file again.',
    );
}
