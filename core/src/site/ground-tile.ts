import type { SceneTexture } from '../format/index.ts';
import { smooth } from '../geometry/index.ts';

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
  const values = new Float64Array(SIDE * SIDE);
  for (const [cells, counts] of GRAIN)
    for (let i = 0; i < values.length; i += 1)
      values[i]! += counts * noise(((i % SIDE) / SIDE) * cells, (Math.floor(i / SIDE) / SIDE) * cells, cells);
  // Spread evenly between dark and light: the sum of many noises is grey in the middle.
  const order = [...values.keys()].sort((a, b) => values[a]! - values[b]!);
  order.forEach((at, rank) => (values[at] = rank / (order.length - 1)));
  made = { bytes: bitmap(values), mediaType: 'image/bmp' };
  return made;
}

/** Smooth noise that repeats after so many cells, 0…1. */
function noise(x: number, y: number, cells: number): number {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const [u, v] = [smooth(0, 1, x - column), smooth(0, 1, y - row)];
  const at = (c: number, r: number) => latticeValue(c % cells, (r % cells) + 1000 * cells);
  const upper = at(column, row) * (1 - u) + at(column + 1, row) * u;
  const lower = at(column, row + 1) * (1 - u) + at(column + 1, row + 1) * u;
  return upper * (1 - v) + lower * v;
}

/** 0…1 by two whole numbers: a mixing hash. */
export function latticeValue(column: number, row: number): number {
  let h = Math.imul(column, 374761393) ^ Math.imul(row, 668265263);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** A Windows bitmap of 24 bits a pixel, rows from below, blue first; sides are whole multiples of four. */
function bitmap(values: Float64Array): Uint8Array {
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
