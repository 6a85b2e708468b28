import { ACROSS, flowPlaces, UP, type ImageFlow } from './flow.ts';

/** A grey picture, row by row from the top, 0…1. */
export interface GreyPicture {
  width: number;
  height: number;
  pixels: Float32Array;
}

/** Half a block that is found again, pixels. */
const HALF = 5;
/** How far it is looked for at the coarsest size, pixels of that size. */
const REACH = 4;
/** Sizes are halved until a picture is narrower than this, pixels. */
const COARSEST = 48;
/** A block whose grey hardly varies across, or hardly up, can be anywhere: mean square of the differences of neighbours. */
const PLAIN = 2e-5;

/** What is found is not what was looked for where it differs by more than this part of what a block varies by itself. */
const UNLIKE = 0.15;

/**
 * How one picture became the next, by block matching from coarse to fine (the least sum of squared differences, each block
 * less its own mean, so that what only gets lighter does not move). Plain surfaces tell nothing: they move as what is
 * near them does; where nothing tells anything, nothing moves.
 * @param step seconds between the two
 */
export function pictureFlow(a: GreyPicture, b: GreyPicture, step: number): ImageFlow {
  const sizes = [[a, b] as const];
  while (sizes.at(-1)![0].width / 2 >= COARSEST) {
    const [one, other] = sizes.at(-1)!;
    sizes.push([halved(one), halved(other)]);
  }
  const count = ACROSS * UP;
  const places = flowPlaces();
  const shifts = new Float64Array(2 * count).fill(Number.NaN);
  for (let i = 0; i < count; i += 1) {
    const shift = shiftAt(sizes, (places[2 * i]! + 1) / 2, (1 - places[2 * i + 1]!) / 2);
    if (shift) shifts.set(shift, 2 * i);
  }
  const known = Array.from({ length: count }, (_, i) => i).filter((i) => !Number.isNaN(shifts[2 * i]!));
  const velocities = new Float64Array(2 * count);
  let sum = 0;
  for (let i = 0; i < count && known.length > 0; i += 1) {
    const [right, down] = Number.isNaN(shifts[2 * i]!)
      ? nearMean(i, known, places, shifts)
      : [shifts[2 * i]!, shifts[2 * i + 1]!];
    const [u, v] = [right / a.width / step, -down / a.width / step];
    velocities.set([u, v], 2 * i);
    sum += Math.hypot(u, v);
  }
  return { places, velocities, speed: sum / count };
}

/** Of what is known, the nearer the more. */
function nearMean(i: number, known: readonly number[], places: Float64Array, shifts: Float64Array): [number, number] {
  let [right, down, weights] = [0, 0, 0];
  for (const k of known) {
    const away = (places[2 * i]! - places[2 * k]!) ** 2 + (places[2 * i + 1]! - places[2 * k + 1]!) ** 2;
    right += shifts[2 * k]! / away;
    down += shifts[2 * k + 1]! / away;
    weights += 1 / away;
  }
  return [right / weights, down / weights];
}

function halved({ width, height, pixels }: GreyPicture): GreyPicture {
  const [w, h] = [width >> 1, height >> 1];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) {
      const o = 2 * y * width + 2 * x;
      out[y * w + x] = (pixels[o]! + pixels[o + 1]! + pixels[o + width]! + pixels[o + width + 1]!) / 4;
    }
  return { width: w, height: h, pixels: out };
}

/**
 * Where the block about a place has gone, pixels of the finest size to the right and down; null where it cannot be told.
 * @param sizes both pictures, from the finest to the coarsest @param u @param v place, 0…1 from the upper left
 */
function shiftAt(
  sizes: readonly (readonly [GreyPicture, GreyPicture])[],
  u: number,
  v: number,
): [number, number] | null {
  let [dx, dy] = [0, 0];
  for (let level = sizes.length - 1; level >= 0; level -= 1) {
    const [a, b] = sizes[level]!;
    const [x, y] = [within(u * a.width, a.width), within(v * a.height, a.height)];
    const coarsest = level === sizes.length - 1;
    const reach = coarsest ? REACH : 2;
    [dx, dy] = coarsest ? [0, 0] : [2 * dx, 2 * dy];
    let [least, bestX, bestY] = [Infinity, dx, dy];
    for (let j = dy - reach; j <= dy + reach; j += 1)
      for (let i = dx - reach; i <= dx + reach; i += 1) {
        const off = unlike(a, b, x, y, i, j);
        if (off < least) [least, bestX, bestY] = [off, i, j];
      }
    [dx, dy] = [bestX, bestY];
  }
  const [a, b] = sizes[0]!;
  const [x, y] = [within(u * a.width, a.width), within(v * a.height, a.height)];
  if (isPlain(a, x, y)) return null;
  const fine = (before: number, here: number, after: number) => {
    const bend = before - 2 * here + after;
    return bend > 1e-12 && Number.isFinite(bend) ? Math.max(-0.5, Math.min(0.5, (before - after) / 2 / bend)) : 0;
  };
  const here = unlike(a, b, x, y, dx, dy);
  // What has left the picture, or is hidden, is not found again: what looks most like it is something else.
  if (!(here < UNLIKE * variance(a, x, y))) return null;
  return [
    dx + fine(unlike(a, b, x, y, dx - 1, dy), here, unlike(a, b, x, y, dx + 1, dy)),
    dy + fine(unlike(a, b, x, y, dx, dy - 1), here, unlike(a, b, x, y, dx, dy + 1)),
  ];
}

const within = (at: number, size: number): number => Math.max(HALF, Math.min(size - 1 - HALF, Math.floor(at)));

/** How unlike a block of one picture is to that of the other; Infinity outside. */
function unlike(a: GreyPicture, b: GreyPicture, x: number, y: number, dx: number, dy: number): number {
  const [bx, by] = [x + dx, y + dy];
  if (bx < HALF || by < HALF || bx >= b.width - HALF || by >= b.height - HALF) return Infinity;
  let [sum, squares] = [0, 0];
  for (let j = -HALF; j <= HALF; j += 1) {
    const [p, q] = [(y + j) * a.width + x, (by + j) * b.width + bx];
    for (let i = -HALF; i <= HALF; i += 1) {
      const off = b.pixels[q + i]! - a.pixels[p + i]!;
      sum += off;
      squares += off * off;
    }
  }
  return squares - (sum * sum) / (2 * HALF + 1) ** 2;
}

/** By how much a block varies: the sum of the squares of what its pixels are off its mean. */
function variance({ width, pixels }: GreyPicture, x: number, y: number): number {
  let [sum, squares] = [0, 0];
  for (let j = -HALF; j <= HALF; j += 1)
    for (let i = -HALF; i <= HALF; i += 1) {
      const value = pixels[(y + j) * width + x + i]!;
      sum += value;
      squares += value * value;
    }
  return squares - (sum * sum) / (2 * HALF + 1) ** 2;
}

/** Is a block plain, or striped: does it look the same a little further along some way? By its structure tensor. */
function isPlain({ width, pixels }: GreyPicture, x: number, y: number): boolean {
  let [xx, xy, yy] = [0, 0, 0];
  for (let j = -HALF + 1; j < HALF; j += 1)
    for (let i = -HALF + 1; i < HALF; i += 1) {
      const o = (y + j) * width + x + i;
      const gx = (pixels[o + 1]! - pixels[o - 1]!) / 2;
      const gy = (pixels[o + width]! - pixels[o - width]!) / 2;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  const least = (xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy);
  return least / (2 * HALF - 1) ** 2 < PLAIN;
}
