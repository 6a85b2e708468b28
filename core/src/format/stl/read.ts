import { FormatError, noGeometry } from '../errors.ts';
import { LeftOut } from '../left-out.ts';
import { TriangleCount } from '../mesh.ts';
import { Extent } from '../origin.ts';
import { TriangleCollector } from '../triangle-collector.ts';
import { PLAIN_MATERIAL, type ReadModel } from '../scene-model.ts';
import { textOf } from '../text/decode.ts';

const HEADER = 84;
const FACE = 50;

/** Reads an STL, text or binary. It says neither its unit nor which way is up. @throws FormatError */
export function readStl(bytes: Uint8Array, fileName: string): ReadModel {
  const binary = isBinary(bytes);
  const solids = binary ? readBinary(bytes, fileName) : readText(textOf(bytes), fileName);
  const extent = new Extent();
  for (const { corners } of solids)
    for (let k = 0; k < corners.length; k += 3) extent.add(corners[k]!, corners[k + 1]!, corners[k + 2]!);
  const origin = extent.origin();
  const leftOut = new LeftOut();
  const parts = solids
    .map(({ name, corners }) => {
      const collector = new TriangleCollector(origin, leftOut);
      for (let k = 0; k + 8 < corners.length; k += 9) collector.add(corners, k);
      return collector.finish(name || 'Solid', 0, fileName);
    })
    .filter((part) => part !== null);
  if (parts.length === 0) throw noGeometry(fileName);
  return {
    parts,
    materials: [{ ...PLAIN_MATERIAL }],
    textures: [],
    cameras: [],
    declares: { metresPerUnit: null, up: null },
    notes: ['STL holds shape only: materials and names were not in the file.', ...leftOut.notes()],
    origin,
  };
}

interface Solid {
  name: string;
  /** Nine numbers a triangle. */
  corners: ArrayLike<number>;
}

/** Text files begin with "solid", and so do some binary ones: those have the length that their count asks for. */
function isBinary(bytes: Uint8Array): boolean {
  const head = textOf(bytes.subarray(0, 512));
  if (!/^\s*solid/i.test(head)) return true;
  if (bytes.byteLength < HEADER) return false;
  const faces = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  return HEADER + FACE * faces === bytes.byteLength;
}

function readBinary(bytes: Uint8Array, fileName: string): Solid[] {
  if (bytes.byteLength < HEADER)
    throw new FormatError('truncated', fileName, 'it ends inside its header.', 'Export the model again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const faces = view.getUint32(80, true);
  const wanted = HEADER + FACE * faces;
  if (wanted > bytes.byteLength)
    throw new FormatError(
      'truncated',
      fileName,
      `it announces ${faces} triangles, which take ${wanted} bytes, and ends after ${bytes.byteLength}.`,
      'The copy or export stopped early; get the file again.',
    );
  new TriangleCount(fileName).add(faces);
  const corners = new Float32Array(9 * faces);
  for (let face = 0; face < faces; face += 1)
    for (let k = 0; k < 9; k += 1) corners[9 * face + k] = view.getFloat32(HEADER + FACE * face + 12 + 4 * k, true);
  checkNumbers(corners, fileName);
  return [{ name: 'Solid', corners }];
}

function readText(text: string, fileName: string): Solid[] {
  const count = new TriangleCount(fileName);
  const solids: { name: string; corners: number[] }[] = [];
  let [line, opened, closed, inFacet] = [0, 0, 0, 0];
  for (const row of text.split('\n')) {
    line += 1;
    const [word = '', ...rest] = row.trim().split(/\s+/);
    switch (word.toLowerCase()) {
      case 'solid':
        solids.push({ name: rest.join(' ').slice(0, 200), corners: [] });
        break;
      case 'facet':
        opened += 1;
        inFacet = 0;
        count.add(1);
        break;
      case 'endfacet':
        closed += 1;
        break;
      case 'vertex': {
        const numbers = rest.slice(0, 3).map(Number);
        if (numbers.length < 3 || !numbers.every(Number.isFinite))
          throw new FormatError(
            'damaged',
            fileName,
            `the vertex in line ${line} is “${row.trim().slice(0, 60)}”.`,
            'Export the model again.',
          );
        if (solids.length === 0) solids.push({ name: '', corners: [] });
        const { corners } = solids.at(-1)!;
        inFacet += 1;
        // A facet of more corners is a fan.
        if (inFacet > 3) corners.push(...corners.slice(-9, -6), ...corners.slice(-3));
        corners.push(...numbers);
      }
    }
  }
  if (opened !== closed || !/endsolid/i.test(text))
    throw new FormatError(
      'truncated',
      fileName,
      `it opens ${opened} facets and closes ${closed}.`,
      'The copy or export stopped early; get the file again.',
    );
  return solids;
}

function checkNumbers(corners: Float32Array, fileName: string): void {
  for (let k = 0; k < corners.length; k += 1)
    if (!Number.isFinite(corners[k]!)) {
      const face = Math.floor(k / 9);
      throw new FormatError(
        'damaged',
        fileName,
        `a corner of triangle ${face + 1} is ${corners.slice(9 * face, 9 * face + 3).join(', ')}.`,
        'Export the model again.',
      );
    }
}
