import { isLandscape, seesThrough, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { boundsOf, joinBounds } from '@eskovan/core/geometry';
import type { Bounds } from '@eskovan/core/document';
import type { Matrix4 } from 'three';

/** Points of the shadow's side. */
export const SIDE = 256;
/** So many triangles cast a shadow; of more, evenly chosen ones do, each for its neighbours. */
const MOST_TRIANGLES = 250_000;
/** What the ground lacks in the middle of the sun's shadow, and where all of the sky is covered, 0…1. */
const SUN_GONE = 0.42;
const SKY_GONE = 0.45;
/** The sun is taken as no lower than this, so that shadows stay near what casts them (sine of its height). */
const LOWEST_SUN = 0.35;
/** Heights are sorted into this many layers, each twice as high as the one before, the lowest a point of the grid. */
const LAYERS = 8;
/**
 * What covers the sky at a height is spread over so many times that: then a square plate as high as it is wide covers a
 * quarter of the sky below its middle, as it does.
 */
const SPREAD = 1.6;
/** There is room around for so much of the height, and for no more than so many times the width. */
const ROOM = 1.2;
const WIDEST_ROOM = 1;

/** How dark level ground is under a model: numbers 0…255, row by row, and where they lie in plan, metres. */
export interface ShadowCast {
  values: Uint8Array;
  x0: number;
  z0: number;
  size: number;
  y: number;
}

/** Where a part is: what takes it there from where it rests, or null. */
export type PlaceOf = (part: ScenePart) => Matrix4 | null;

/**
 * The shadow that a model without ground of its own casts on a level ground at its lowest point, softly: of the sun, and of
 * the sky, which it covers the more the nearer it is. Without the latter things seem to float.
 * @param sun unit vector towards the sun; null where none shines
 * @param moved what of it moves, and where that is now; it has room to turn
 * @returns null for a model that brings its ground along
 */
export function castShadow(
  model: SceneModel,
  sun: readonly [number, number, number] | null,
  moved: PlaceOf | null = null,
  side = SIDE,
): ShadowCast | null {
  if (model.parts.length === 0 || model.parts.some(isLandscape)) return null;
  const { min, max } = withRoom(joinBounds(model.parts.map(({ positions }) => boundsOf(positions)))!, moved !== null);
  const [dx, dz] = leanOf(sun);
  const height = max[1]! - min[1]!;
  const reach = [dx, dz].map((lean) => [Math.min(0, lean * height), Math.max(0, lean * height)] as const);
  const [[west, east], [north, south]] = reach as [readonly [number, number], readonly [number, number]];
  const wide = Math.max(max[0]! - min[0]!, max[2]! - min[2]!);
  const room = Math.min(ROOM * height, WIDEST_ROOM * wide);
  const cast = Math.max(max[0]! - min[0]! + east - west, max[2]! - min[2]! + south - north);
  const size = Math.max(1.5 * cast, cast + 2 * room);
  const [x0, z0] = [
    (min[0]! + west + max[0]! + east) / 2 - size / 2,
    (min[2]! + north + max[2]! + south) / 2 - size / 2,
  ];
  // What covers the sky is soft: half as many points tell it.
  const half = side / 2;
  const [scale, coarse] = [side / size, half / size];
  const shaded = new Float32Array(side * side);
  const covered = new Map<number, Float32Array>();
  const total = model.parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  const every = Math.ceil(total / MOST_TRIANGLES);
  const corners = new Float64Array(6);
  for (const part of model.parts) {
    if (seesThrough(model.materials[part.material]!)) continue;
    const { indices } = part;
    const place = moved?.(part);
    const p = place ? movedBy(part.positions, place) : part.positions;
    const putOnGround = (t: number, by: number, leans: 0 | 1) => {
      for (let corner = 0; corner < 3; corner += 1) {
        const v = 3 * indices[t + corner]!;
        const high = leans * (p[v + 1]! - min[1]!);
        corners[2 * corner] = (p[v]! + dx * high - x0) * by;
        corners[2 * corner + 1] = (p[v + 2]! + dz * high - z0) * by;
      }
    };
    for (let t = 0; t < indices.length; t += 3 * every) {
      if (sun) {
        putOnGround(t, scale, 1);
        fill(shaded, side, corners);
      }
      const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
      const above = ((p[a + 1]! + p[b + 1]! + p[c + 1]!) / 3 - min[1]!) * coarse;
      const layer = Math.min(LAYERS - 1, Math.round(Math.log2(Math.max(1, above))));
      let grid = covered.get(layer);
      if (!grid) covered.set(layer, (grid = new Float32Array(half * half)));
      putOnGround(t, coarse, 0);
      fill(grid, half, corners);
    }
  }
  const soft = blur(shaded, side, Math.round(side / 64));
  const sky = skyCovered(covered, half, ((size - cast) * coarse) / 2);
  const values = Uint8Array.from(soft, (value, i) => {
    const cover = between(sky, half, (i % side) / 2 - 0.25, Math.floor(i / side) / 2 - 0.25);
    return Math.round(255 * (1 - (1 - SUN_GONE * Math.min(1, value)) * (1 - SKY_GONE * Math.min(1, cover))));
  });
  return { values, x0, z0, size, y: min[1]! };
}

/**
 * How much of the sky is covered, 0…1, from what there is at each height.
 * @param farthest points that it may be spread over: it ends before the edge, and what would go farther is fainter instead
 */
function skyCovered(layers: ReadonlyMap<number, Float32Array>, side: number, farthest: number): Float32Array {
  const most = new Float32Array(side * side);
  for (const [layer, grid] of layers) {
    const spread = SPREAD * 2 ** layer;
    const faint = Math.min(1, farthest / spread);
    const soft = blur(grid, side, Math.round((faint * spread) / 2));
    // The nearest counts: what is over it covers the same sky.
    for (let i = 0; i < most.length; i += 1) most[i] = Math.max(most[i]!, faint * soft[i]!);
  }
  return most;
}

/** A value between the points of a grid. */
function between(grid: Float32Array, side: number, x: number, z: number): number {
  const [c, r] = [Math.max(0, Math.floor(x)), Math.max(0, Math.floor(z))];
  const [right, down] = [Math.min(side - 1, c + 1), Math.min(side - 1, r + 1)];
  const [u, v] = [Math.max(0, x - c), Math.max(0, z - r)];
  const row = (at: number) => (1 - u) * grid[at * side + c]! + u * grid[at * side + right]!;
  return (1 - v) * row(r) + v * row(down);
}

/** How far a shadow goes along x and z per metre of height: away from the sun. */
function leanOf(sun: readonly [number, number, number] | null): readonly [number, number] {
  if (!sun) return [0, 0];
  const up = Math.max(LOWEST_SUN, sun[1]);
  const flat = Math.hypot(sun[0], sun[2]) || 1;
  const lean = Math.min(1.6, Math.sqrt(Math.max(0, 1 - up * up)) / up);
  return [(-sun[0] / flat) * lean, (-sun[2] / flat) * lean];
}

/** What turns about its middle needs room for its corners. */
function withRoom({ min, max }: Bounds, turns: boolean): Bounds {
  if (!turns) return { min, max };
  const [x, z] = [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2];
  const reach = Math.hypot(max[0] - min[0], max[2] - min[2]) / 2;
  return { min: [x - reach, min[1], z - reach], max: [x + reach, max[1], z + reach] };
}

function movedBy(positions: Float32Array, { elements: m }: Matrix4): Float32Array {
  const out = new Float32Array(positions.length);
  for (let o = 0; o < positions.length; o += 3) {
    const [x, y, z] = [positions[o]!, positions[o + 1]!, positions[o + 2]!];
    for (let k = 0; k < 3; k += 1) out[o + k] = m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]!;
  }
  return out;
}

/**
 * Fills a triangle of the grid; one that is smaller than a point fills the point it is in. Written plainly: a house has a
 * hundred thousand, and somebody waits for its first picture.
 * @param corners x and z of each
 */
function fill(grid: Float32Array, side: number, corners: Float64Array): void {
  const [ax, az, bx, bz, cx, cz] = [corners[0]!, corners[1]!, corners[2]!, corners[3]!, corners[4]!, corners[5]!];
  const [left, right] = [Math.min(ax, bx, cx), Math.max(ax, bx, cx)];
  const [top, bottom] = [Math.min(az, bz, cz), Math.max(az, bz, cz)];
  // What has gone elsewhere casts its shadow elsewhere.
  if (left > side || right < 0 || top > side || bottom < 0) return;
  const [c0, c1] = [Math.max(0, Math.floor(left)), Math.min(side - 1, Math.floor(right))];
  const [r0, r1] = [Math.max(0, Math.floor(top)), Math.min(side - 1, Math.floor(bottom))];
  const small = c1 - c0 < 2 && r1 - r0 < 2;
  for (let r = r0; r <= r1; r += 1)
    for (let c = c0; c <= c1; c += 1) {
      if (!small) {
        const [x, z] = [c + 0.5, r + 0.5];
        const first = (bx - ax) * (z - az) - (bz - az) * (x - ax);
        const second = (cx - bx) * (z - bz) - (cz - bz) * (x - bx);
        const third = (ax - cx) * (z - cz) - (az - cz) * (x - cx);
        const inside = (first >= 0 && second >= 0 && third >= 0) || (first <= 0 && second <= 0 && third <= 0);
        if (!inside) continue;
      }
      grid[r * side + c] = 1;
    }
}

/** A running mean of ± reach points along rows and columns, twice: soft without corners. */
function blur(grid: Float32Array, side: number, reach: number): Float32Array {
  const along = (from: Float32Array, step: number, next: number) => {
    const out = new Float32Array(from.length);
    for (let line = 0; line < side; line += 1) {
      let sum = 0;
      for (let i = -reach; i < side + reach; i += 1) {
        if (i + reach < side) sum += from[line * next + (i + reach) * step]!;
        if (i - reach - 1 >= 0) sum -= from[line * next + (i - reach - 1) * step]!;
        if (i >= 0 && i < side) out[line * next + i * step] = sum / (2 * reach + 1);
      }
    }
    return out;
  };
  const once = (from: Float32Array) => along(along(from, 1, side), side, 1);
  return once(once(grid));
}
