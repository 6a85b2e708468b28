import { FormatError } from '../errors.ts';

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BINARY_CHUNK = 0x004e4942;

/**
 * The description and the binary chunk of a GLB, checked against glTF 2.0 §4.4 before anything is believed; or a
 * description that stands alone.
 */
export function readContainer(bytes: Uint8Array, fileName: string): { json: unknown; binary: Uint8Array | null } {
  if (bytes.byteLength === 0) throw new FormatError('empty', fileName, 'the file is empty.', 'Export the model again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (/^\s*\{/.test(new TextDecoder().decode(bytes.subarray(0, 64))))
    return { json: parseJson(bytes, fileName), binary: null };
  if (bytes.byteLength < 12 || view.getUint32(0, true) !== MAGIC)
    throw new FormatError('wrong-type', fileName, 'this is not a GLB file.', 'Export the model as binary glTF (.glb).');
  const version = view.getUint32(4, true);
  if (version !== 2) throw otherVersion(version, fileName);
  const length = view.getUint32(8, true);
  if (length > bytes.byteLength)
    throw new FormatError(
      'truncated',
      fileName,
      `it should have ${length} bytes and ends after ${bytes.byteLength}.`,
      'The copy or export stopped early; get the file again.',
    );
  let json: unknown;
  let binary: Uint8Array | null = null;
  for (let offset = 12; offset + 8 <= length;) {
    const size = view.getUint32(offset, true);
    const type = view.getUint32(offset + 4, true);
    if (offset + 8 + size > length)
      throw new FormatError(
        'damaged',
        fileName,
        `the chunk at byte ${offset} is longer than the file.`,
        'Export it again.',
      );
    const chunk = bytes.subarray(offset + 8, offset + 8 + size);
    if (type === JSON_CHUNK && json === undefined) json = parseJson(chunk, fileName);
    else if (type === BINARY_CHUNK) binary = chunk;
    offset += 8 + size;
  }
  if (json === undefined)
    throw new FormatError('damaged', fileName, 'it has no scene description.', 'Export the model again.');
  return { json, binary };
}

function parseJson(bytes: Uint8Array, fileName: string): unknown {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch (error) {
    const at = /position (\d+)/.exec((error as Error).message)?.[1];
    throw new FormatError(
      'damaged',
      fileName,
      `its scene description is not valid JSON${at ? ` at character ${at}` : ''}.`,
      'Export the model again.',
    );
  }
  const version = (json as { asset?: { version?: unknown } } | null)?.asset?.version;
  // The first version is another format of the same name: its lists are objects by name.
  if (/^[01]\b/.test(String(version))) throw otherVersion(String(version), fileName);
  return json;
}

const otherVersion = (version: string | number, fileName: string) =>
  new FormatError(
    'unsupported',
    fileName,
    `it is glTF version ${version} (asset.version).`,
    'Export it as glTF 2.0, or as OBJ.',
  );
