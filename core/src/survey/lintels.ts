import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import type { StoreyColumns } from './columns.ts';
import { trianglesWith } from './floor-index.ts';
import { HEAD_ROOM } from './levels.ts';
import { cutTriangle, OFF_ROUND } from './plan-cut.ts';

/** Heights above a floor between which rooms are told apart, metres: above door leaves, below ceilings. */
const LOWEST_LINTEL = 2.12;
const HIGHEST_LINTEL = 2.6;
/** The cut stays this far below low ceilings, metres; less where rooms are so low that doors reach nearly as high. */
const BELOW_CEILING = 0.15;
const CLOSE_BELOW = 0.05;
/** Ceilings are looked for on a grid of this spacing, metres. */
const CEILING_STEP = 0.5;
/** Tall doors are looked for under ceilings up to this height, metres. */
const HIGHEST_CEILING = 3.6;
/** Steeper faces than this (cosine to the vertical) are walls: a sloping roof is no wall of the room under it. */
const STEEP = 0.45;

/** Heights above a storey's floor at which its walls are cut, metres. */
export interface LintelHeights {
  /** Where walls close over doors and wide openings. */
  main: number;
  /** Just below its ceilings: walls that close only there, over doors that are nearly as high as the room. */
  upper: number[];
}

/** As high as a storey's low ceilings allow, and just below all of its ceilings. */
export function lintelHeights(
  columns: StoreyColumns,
  [x0, z0, x1, z1]: readonly [number, number, number, number],
): LintelHeights {
  const step = Math.max(CEILING_STEP, Math.sqrt(((x1 - x0) * (z1 - z0)) / 40_000));
  const ceilings: number[] = [];
  for (let x = x0; x <= x1; x += step)
    for (let z = z0; z <= z1; z += step) {
      const ceiling = columns.hasFloor(x, z) ? columns.ceiling(x, z) : Infinity;
      if (Number.isFinite(ceiling)) ceilings.push(ceiling);
    }
  ceilings.sort((a, b) => a - b);
  const at = (share: number) => ceilings[Math.floor(ceilings.length * share)] ?? Infinity;
  // A few beams and pipes are no ceiling.
  const low = at(0.2);
  const roomy = Math.min(HIGHEST_LINTEL, low - BELOW_CEILING);
  const main = roomy >= LOWEST_LINTEL ? roomy : Math.min(LOWEST_LINTEL, Math.max(HEAD_ROOM, low - CLOSE_BELOW));
  const upper = [low, at(0.5), at(0.8)].map((ceiling) => ceiling - CLOSE_BELOW);
  return { main, upper: [...new Set(upper)].filter((height) => height > main + 0.02 && height < HIGHEST_CEILING) };
}

/** The triangles of a soup that walls are made of. */
export function wallsOf(soup: TriangleSoup): TriangleSoup {
  const normal = new Float64Array(3);
  const steep = new Uint8Array(soup.length / TRIANGLE);
  for (let i = 0; i < steep.length; i += 1) {
    triangleNormal(soup, i, normal);
    if (Math.abs(normal[1]!) < STEEP * Math.hypot(normal[0]!, normal[1]!, normal[2]!)) steep[i] = 1;
  }
  return trianglesWith(soup, steep, 1);
}

/** Where a level plane goes through walls: loose lines of x, z, x, z, metres. */
export function wallLines(walls: TriangleSoup, height: number): Float64Array {
  const out: number[] = [];
  const line = new Float64Array(4);
  for (let o = 0; o < walls.length; o += TRIANGLE)
    if (cutTriangle(walls, o, height + OFF_ROUND, line)) out.push(...line);
  return Float64Array.from(out);
}
