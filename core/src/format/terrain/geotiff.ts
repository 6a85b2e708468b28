import { FormatError } from '../errors.ts';
import type { ReadModel } from '../scene-model.ts';
import { inMetres } from './ascii-grid.ts';
import { terrainModel } from './heights.ts';

const MOST_CELLS = 50_000_000;
/** GTModelTypeGeoKey: 2 says that coordinates are degrees (OGC GeoTIFF 1.1, requirement class "GTModelTypeGeoKey"). */
const GEOGRAPHIC = 2;

export const isTiff = (bytes: Uint8Array) =>
  (bytes[0] === 0x49 && bytes[1] === 0x49 && (bytes[2] === 42 || bytes[2] === 43)) ||
  (bytes[0] === 0x4d && bytes[1] === 0x4d && (bytes[3] === 42 || bytes[3] === 43));

/** Reads the heights of a GeoTIFF: its first band, in metres. @throws FormatError */
export async function readGeoTiff(bytes: Uint8Array, fileName: string): Promise<ReadModel> {
  const { fromArrayBuffer } = await import('geotiff');
  try {
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    const image = await (await fromArrayBuffer(buffer)).getImage();
    const [columns, rows] = [image.getWidth(), image.getHeight()];
    if (!(columns >= 2) || !(rows >= 2) || columns * rows > MOST_CELLS)
      throw new FormatError(
        'too-large',
        fileName,
        `it is ${columns} × ${rows} points.`,
        'Cut out the part that is shown.',
      );
    const notes: string[] = [];
    const [data] = (await image.readRasters({ samples: [0] })) as unknown as [ArrayLike<number>];
    if (data.length < columns * rows)
      throw new FormatError(
        'truncated',
        fileName,
        `it announces ${columns * rows} heights and holds ${data.length}.`,
        'The copy or export stopped early; get the file again.',
      );
    const nothing = image.getGDALNoData();
    const heights = Float32Array.from(data, (value) =>
      value === nothing || !(Math.abs(value) < 12_000) ? Number.NaN : value,
    );
    const cell = placed(image, fileName, notes);
    return terrainModel({ columns, rows, cell, heights }, fileName, notes);
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError(
      'damaged',
      fileName,
      'its directory names heights that are not in the file, or packs them in a way that cannot be read.',
      'Get the file again, or export it without compression.',
    );
  }
}

interface GeoImage {
  getResolution(): number[];
  getBoundingBox(): number[];
  getGeoKeys(): { GTModelTypeGeoKey?: number | undefined } | null;
}

function placed(image: GeoImage, fileName: string, notes: string[]): [number, number] {
  let resolution: number[];
  try {
    resolution = image.getResolution();
  } catch {
    throw new FormatError(
      'unsupported',
      fileName,
      'it is a picture without a place on earth: nothing says how far its points are apart.',
      'Export it as GeoTIFF with its georeference.',
    );
  }
  const [, south = 0, , north = 0] = image.getBoundingBox();
  const degrees = image.getGeoKeys()?.GTModelTypeGeoKey === GEOGRAPHIC;
  return inMetres([Math.abs(resolution[0]!), Math.abs(resolution[1]!)], (south + north) / 2, degrees, notes);
}
