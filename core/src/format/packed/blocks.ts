import type { ZodType } from 'zod';
import type { FormatError } from '../errors.ts';

/** What a file of blocks is: four letters, and the version of its header. */
export interface BlockFormat<H> {
  /** Its letters as a little-endian number. */
  magic: number;
  version: number;
  header: ZodType<H>;
  /** What it is called where it is not one: “a packed model”. */
  name: string;
  bad: (reason: string) => FormatError;
}

interface View {
  buffer: ArrayBufferLike;
  byteOffset: number;
  byteLength: number;
}

const START = 12;
const aligned = (bytes: number) => (bytes + 3) & ~3;

/** Letters, version, length of the header, header (JSON), then the blocks, each aligned to four bytes. */
export function packBlocks<H>(
  { magic, version }: Pick<BlockFormat<H>, 'magic' | 'version'>,
  header: H,
  blocks: readonly View[],
): Uint8Array<ArrayBuffer> {
  const text = new TextEncoder().encode(JSON.stringify(header));
  const start = START + aligned(text.byteLength);
  const out = new Uint8Array(blocks.reduce((sum, { byteLength }) => sum + aligned(byteLength), start));
  const view = new DataView(out.buffer);
  view.setUint32(0, magic, true);
  view.setUint32(4, version, true);
  view.setUint32(8, text.byteLength, true);
  out.set(text, START);
  let offset = start;
  for (const { buffer, byteOffset, byteLength } of blocks) {
    out.set(new Uint8Array(buffer, byteOffset, byteLength), offset);
    offset += aligned(byteLength);
  }
  return out;
}

/**
 * Reads what {@link packBlocks} made: its header, and what takes one block after the other, by their lengths in bytes.
 * @throws FormatError where it is something else, another version, or ends early
 */
export function openBlocks<H>(
  bytes: Uint8Array,
  { magic, version, header, name, bad }: BlockFormat<H>,
): { header: H; take: (length: number) => ArrayBuffer } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < START || view.getUint32(0, true) !== magic) throw bad(`this is not ${name}.`);
  if (view.getUint32(4, true) !== version) throw bad(`it is version ${view.getUint32(4, true)}, wanted ${version}.`);
  const length = view.getUint32(8, true);
  if (START + length > bytes.byteLength) throw bad('it ends inside its header.');
  let offset = START + aligned(length);
  return {
    header: header.parse(JSON.parse(new TextDecoder().decode(bytes.subarray(START, START + length)))),
    take: (size) => {
      if (offset + size > bytes.byteLength) throw bad('it ends early.');
      const block = new ArrayBuffer(size);
      new Uint8Array(block).set(bytes.subarray(offset, offset + size));
      offset += aligned(size);
      return block;
    },
  };
}
