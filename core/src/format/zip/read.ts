import { unzipSync, zipSync, type UnzipFileInfo } from 'fflate';
import { FormatError } from '../errors.ts';

/** Most that a zip may unpack to, and most entries it may hold. */
const MOST_BYTES = 1024 ** 3;
const MOST_ENTRIES = 5000;
/** Nothing that models are made of packs better than this; what claims to is a trap. */
const MOST_RATIO = 400;

export const isZip = (bytes: Uint8Array) =>
  bytes.length > 3 && bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);

/**
 * Unpacks a zip into memory, by path within it. Nothing is believed: sizes, paths and numbers are bounded before the
 * first byte is unpacked, and what is unpacked never outgrows what was announced.
 * @throws FormatError
 */
export function readZip(bytes: Uint8Array, fileName: string): Map<string, Uint8Array> {
  let total = 0;
  let entries = 0;
  const check = ({ name, size, originalSize }: UnzipFileInfo): boolean => {
    entries += 1;
    total += originalSize;
    const path = name.replaceAll('\\', '/');
    if (path.startsWith('/') || /^[a-z]:/i.test(path) || path.split('/').includes('..'))
      throw new FormatError(
        'damaged',
        fileName,
        `it names a file outside itself (“${name}”).`,
        'Zip the folder again.',
      );
    if (entries > MOST_ENTRIES)
      throw new FormatError('too-large', fileName, `it holds more than ${MOST_ENTRIES} files.`, 'Zip only the model.');
    if (total > MOST_BYTES || (originalSize > 50_000_000 && originalSize > MOST_RATIO * size))
      throw new FormatError(
        'too-large',
        fileName,
        `“${name}” would unpack to ${Math.round(originalSize / 1024 ** 2)} MB, more than is taken in.`,
        'Zip only the model and its textures.',
      );
    return !path.endsWith('/') && !path.startsWith('__MACOSX/');
  };
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, { filter: check });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError(
      'damaged',
      fileName,
      'it cannot be unpacked: its directory or one of its files is not whole.',
      'Zip it again.',
    );
  }
  return new Map(Object.entries(files).map(([name, content]) => [name.replaceAll('\\', '/'), content]));
}

/** Files by their paths as one zip, as they are: pictures and meshes are packed already. */
export const zipFiles = (files: ReadonlyMap<string, Uint8Array>): Uint8Array<ArrayBuffer> =>
  zipSync(Object.fromEntries(files), { level: 0 }) as Uint8Array<ArrayBuffer>;
