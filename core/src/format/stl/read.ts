import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { mergeVertices } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { FormatError, noGeometry } from '../errors.ts';
import { partFromGeometry } from '../mesh.ts';
import { PLAIN_MATERIAL, type ReadModel } from '../scene-model.ts';

const HEADER = 84;
const FACE = 50;

/** Reads an STL, text or binary. It says neither its unit nor which way is up. @throws FormatError */
export function readStl(bytes: Uint8Array, fileName: string): ReadModel {
  const text = isText(bytes);
  if (text) checkText(bytes, fileName);
  else checkBinary(bytes, fileName);
  const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
  const geometry = new STLLoader().parse(buffer);
  if (!geometry.getAttribute('position')?.count) throw noGeometry(fileName);
  const name =
    (text && /^\s*solid[ \t]+([^\r\n]+)/.exec(new TextDecoder().decode(bytes.subarray(0, 200)))?.[1]?.trim()) ||
    'Solid';
  const part = partFromGeometry(mergeVertices(geometry, 1e-7), name, 0, fileName);
  if (!part) throw noGeometry(fileName);
  return {
    parts: [part],
    materials: [{ ...PLAIN_MATERIAL }],
    textures: [],
    cameras: [],
    declares: { metresPerUnit: null, up: null },
    notes: ['STL holds shape only: materials and names were not in the file.'],
  };
}

/** Text files begin with "solid", and so do some binary ones: those have the length that their count asks for. */
function isText(bytes: Uint8Array): boolean {
  if (!/^\s*solid/i.test(new TextDecoder().decode(bytes.subarray(0, 64)))) return false;
  if (bytes.byteLength < HEADER) return true;
  const faces = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  return HEADER + FACE * faces !== bytes.byteLength;
}

function checkBinary(bytes: Uint8Array, fileName: string): void {
  if (bytes.byteLength < HEADER)
    throw new FormatError('truncated', fileName, 'it ends inside its header.', 'Export the model again.');
  const faces = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  const wanted = HEADER + FACE * faces;
  if (wanted > bytes.byteLength)
    throw new FormatError(
      'truncated',
      fileName,
      `it announces ${faces} triangles, which take ${wanted} bytes, and ends after ${bytes.byteLength}.`,
      'The copy or export stopped early; get the file again.',
    );
}

function checkText(bytes: Uint8Array, fileName: string): void {
  const text = new TextDecoder().decode(bytes);
  const opened = text.match(/\bfacet\b/g)?.length ?? 0;
  const closed = text.match(/\bendfacet\b/g)?.length ?? 0;
  // "endfacet" holds no word "facet" of its own: \b keeps them apart.
  if (opened !== closed || !/endsolid/i.test(text))
    throw new FormatError(
      'truncated',
      fileName,
      `it opens ${opened} facets and closes ${closed}.`,
      'The copy or export stopped early; get the file again.',
    );
}
