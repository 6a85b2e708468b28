import { boundsOf, type TriangleSoup } from '../geometry/index.ts';
import { FloorIndex } from './floor-index.ts';
import { coverTriangles } from './footing.ts';

/** Heights of the landscape on a level grid; rows go along z, the first at its least z. Metres. */
export interface Relief {
  /** Middle of the first cell. */
  x0: number;
  z0: number;
  cell: number;
  columns: number;
  rows: number;
  /** Row by row; null where there is no land. */
  heights: (number | null)[];
}

/** Cells along the longer side. */
const MOST = 200;

/** Heights of a landscape as far as one sees it from above; null where there is none. */
export function reliefOf(land: TriangleSoup): Relief | null {
  if (land.length === 0) return null;
  const { min, max } = boundsOf(land);
  const [width, depth] = [max[0] - min[0], max[2] - min[2]];
  const cell = Math.max(width, depth) / MOST;
  const [columns, rows] = [Math.max(1, Math.ceil(width / cell)), Math.max(1, Math.ceil(depth / cell))];
  const [x0, z0] = [(min[0] + max[0] - (columns - 1) * cell) / 2, (min[2] + max[2] - (rows - 1) * cell) / 2];
  const index = new FloorIndex(coverTriangles(land));
  const heights = Array.from({ length: columns * rows }, (_, i) => {
    const column = i % columns;
    const height = index.floorBelow(x0 + column * cell, z0 + ((i - column) / columns) * cell, Infinity);
    return height === -Infinity ? null : Math.round(height * 100) / 100;
  });
  return { x0, z0, cell, columns, rows, heights };
}

/**
 * How steeply the land rises along x and z in a cell, metres a metre, from its eight neighbours (Horn 1981, “Hill
 * shading and the reflectance map”); null where it or a neighbour has no height. At the edge the nearest cells count.
 */
function gradient({ columns, rows, cell, heights }: Relief, i: number): [number, number] | null {
  const column = i % columns;
  const row = (i - column) / columns;
  const at = (dc: number, dr: number) => {
    const c = Math.min(columns - 1, Math.max(0, column + dc));
    const r = Math.min(rows - 1, Math.max(0, row + dr));
    return heights[r * columns + c]!;
  };
  const around = [-1, 0, 1].map((dr) => [-1, 0, 1].map((dc) => at(dc, dr)));
  if (around.some((line) => line.some((height) => height === null))) return null;
  const [a, b, c] = around as [number[], number[], number[]];
  const spanX = (column > 0 && column < columns - 1 ? 8 : 4) * cell;
  const spanZ = (row > 0 && row < rows - 1 ? 8 : 4) * cell;
  return [
    (a[2]! + 2 * b[2]! + c[2]! - a[0]! - 2 * b[0]! - c[0]!) / spanX,
    (c[0]! + 2 * c[1]! + c[2]! - a[0]! - 2 * a[1]! - a[2]!) / spanZ,
  ];
}

/** The light of maps comes from the upper left, 45° high (common practice in cartography, no source): towards it. */
const LIGHT = [-0.5, Math.SQRT1_2, -0.5] as const;

/**
 * How bright each cell lies in the light of maps: 0 in the shade, level land 1, more where it faces the light; NaN
 * without height.
 */
export function shadesOf(relief: Relief): Float32Array {
  return Float32Array.from(relief.heights, (_, i) => {
    const slope = gradient(relief, i);
    if (!slope) return Number.NaN;
    const [dx, dz] = slope;
    return Math.max(0, -dx * LIGHT[0] + LIGHT[1] - dz * LIGHT[2]) / Math.hypot(dx, 1, dz) / LIGHT[1];
  });
}

/** How steep each cell is: rise over run, 1 is 45°; NaN without height. */
export function slopesOf(relief: Relief): Float32Array {
  return Float32Array.from(relief.heights, (_, i) => {
    const slope = gradient(relief, i);
    return slope ? Math.hypot(...slope) : Number.NaN;
  });
}

/** How steep a landscape mostly is, rise over run: half of it is less steep. NaN where nothing is known. */
export function usualSlope(relief: Relief): number {
  const known = slopesOf(relief)
    .filter((value) => !Number.isNaN(value))
    .sort();
  return known[Math.floor(known.length / 2)] ?? Number.NaN;
}

/**
 * Classes of slope that a plan tells apart: up to `to`, rise over run. Ramps are level enough for a wheelchair to 6 %
 * (DIN 18040-1, from memory); beyond 100 % (45°) nobody walks unless the project says so.
 */
export const SLOPE_CLASSES = [
  { to: 0.06, words: 'to 6 %' },
  { to: 0.12, words: '6–12 %' },
  { to: 0.25, words: '12–25 %' },
  { to: 0.5, words: '25–50 %' },
  { to: Infinity, words: 'over 50 %' },
] as const;
