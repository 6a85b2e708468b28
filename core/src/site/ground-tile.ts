import type { SceneTexture } from '../format/index.ts';
import { addSeamlessNoise } from '../geometry/index.ts';

/** Side of the tile, pixels, and on the ground, metres. */
const SIDE = 128;
export const TILE_METRES = 6.4;
/** What grows differs by such sizes, in parts of the tile, and so much of it by each: large ones would show how it repeats. */
const GRAIN = [
  [9, 0.15],
  [19, 0.3],
  [37, 0.3],
  [61, 0.25],
] as const;
/** Linear shares of the ground's colour: where it is darkest and lightest; half way between on the whole. */
const [DARKEST, LIGHTEST] = [0.72, 1];
export const TILE_MEAN = (DARKEST + LIGHTEST) / 2;
/** Darker places are greener by this share. */
const GREENER = 0.06;

let made: SceneTexture | null = null;

/**
 * A picture of ground that goes on in every direction, as it looks from a person's height: what the colours of a landscape are
 * multiplied by. An uncompressed bitmap, the same every time.
 */
export function groundTile(): SceneTexture {
  if (made) return made;
  const values = new Float32Array(SIDE * SIDE);
  GRAIN.forEach(([cells, counts], layer) => addSeamlessNoise(values, cells, counts, layer));
  // Spread evenly between dark and light: the sum of many noises is grey in the middle.
  const order = [...values.keys()].sort((a, b) => values[a]! - values[b]!);
  order.forEach((at, rank) => (values[at] = rank / (order.length - 1)));
  made = { bytes: bitmap(values), mediaType: 'image/bmp' };
  return made;
}

/** A Windows bitmap of 24 bits a pixel, rows from below, blue first; sides are whole multiples of four. */
function bitmap(values: Float32Array): Uint8Array {
  const head = 54;
  const bytes = new Uint8Array(head + 3 * values.length);
  const view = new DataView(bytes.buffer);
  bytes.set([0x42, 0x4d]);
  view.setUint32(2, bytes.length, true);
  view.setUint32(10, head, true);
  view.setUint32(14, 40, true);
  view.setInt32(18, SIDE, true);
  view.setInt32(22, SIDE, true);
  view.setUint16(26, 1, true);
  view.setUint16(28, 24, true);
  values.forEach((value, i) => {
    const light = DARKEST + (LIGHTEST - DARKEST) * value;
    const green = Math.min(1, light * (1 + GREENER * (1 - value)));
    // Pictures are decoded by a square.
    [light, green, light].forEach((share, k) => (bytes[head + 3 * i + k] = Math.round(255 * Math.sqrt(share))));
  });
  return bytes;
}
