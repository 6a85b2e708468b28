import { TRIANGLE, type TriangleSoup } from '../geometry/index.ts';
import { clipToHeights, distanceInPlan } from './plan-clip.ts';
import { PlanCells, planExtents } from './plan-cells.ts';

/** Sides of plan cells for small and for wide triangles, and what counts as wide, metres. */
const CELL = 0.5;
const WIDE = 4;
const WIDE_CELL = 2;

/**
 * Triangles in plan cells: small ones in small cells, wide ones apart, so that none stands in a thousand.
 * @param order of the triangles in each cell; as they come where it is left out
 */
export function sortIntoCells(soup: TriangleSoup, order?: Uint32Array): readonly PlanCells[] {
  const extents = planExtents(soup);
  const isWide = (e: number) => extents[e + 2]! - extents[e]! > WIDE || extents[e + 3]! - extents[e + 1]! > WIDE;
  let wide = 0;
  for (let e = 0; e < extents.length; e += 4) if (isWide(e)) wide += 1;
  const sorted = { small: new Uint32Array(extents.length / 4 - wide), wide: new Uint32Array(wide) };
  for (let i = 0, s = 0, w = 0; i < extents.length / 4; i += 1) {
    const triangle = order ? order[i]! : i;
    if (isWide(4 * triangle)) sorted.wide[w++] = triangle;
    else sorted.small[s++] = triangle;
  }
  return [new PlanCells(sorted.small, extents, CELL), new PlanCells(sorted.wide, extents, WIDE_CELL)];
}

/** A long line is tried in pieces so long, metres. */
const PIECE = 1.5;

/** Where a short line meets a surface. */
export interface LineHit {
  /** Number of the triangle. */
  triangle: number;
  /** Part of the line, 0…1. */
  at: number;
}

/**
 * Answers "what does this short line go through?" for lines of a fraction of a metre: the triangles of one or a few
 * plan cells are tried. It is made in one pass, so the page can have it without waiting for a tree.
 */
export class SolidCells {
  private made: readonly PlanCells[] | null = null;

  constructor(readonly triangles: TriangleSoup) {}

  private get cells(): readonly PlanCells[] {
    return (this.made ??= sortIntoCells(this.triangles));
  }

  /** All surfaces between two points, metres, whichever side they show, in the order they are met. */
  between(a: readonly [number, number, number], b: readonly [number, number, number]): LineHit[] {
    const hits: LineHit[] = [];
    const box = boxOf(a, b);
    for (const cells of this.cells)
      cells.forEachCell(box.x0, box.z0, box.x1, box.z1, (cell) => {
        for (let k = cells.starts[cell]!; k < cells.starts[cell + 1]!; k += 1) {
          const o = cells.entries[k]!;
          if (this.isApart(o, box)) continue;
          const at = this.crosses(o, a, b);
          if (at >= 0) hits.push({ triangle: o / TRIANGLE, at });
        }
      });
    return hits.length > 1 ? hits.sort((one, other) => one.at - other.at) : hits;
  }

  /**
   * The nearest surface along a ray, whichever side it shows: piece by piece, so that a long way costs no more than it
   * is long.
   * @param direction of length 1 @param far metres @param counts whether a triangle does
   */
  first(
    from: readonly [number, number, number],
    direction: readonly [number, number, number],
    far: number,
    counts: (triangle: number) => boolean = () => true,
  ): { triangle: number; distance: number } | null {
    const at = (distance: number): [number, number, number] => [
      from[0] + direction[0] * distance,
      from[1] + direction[1] * distance,
      from[2] + direction[2] * distance,
    ];
    for (let start = 0; start < far; start += PIECE) {
      const length = Math.min(PIECE, far - start);
      const hit = this.between(at(start), at(start + length)).find(({ triangle }) => counts(triangle));
      if (hit) return { triangle: hit.triangle, distance: start + hit.at * length };
    }
    return null;
  }

  /**
   * Everything that reaches into a height range beside a place, as the plan shows it: how far away each surface is, and
   * the nearest place of its outline. Over and under what is level the distance is 0.
   * @param heights lowest and highest, metres @param reach what is farther away is left out, metres
   */
  beside(
    x: number,
    z: number,
    [low, high]: readonly [number, number],
    reach: number,
    found: (x: number, z: number, distance: number, triangle: number) => void,
  ): void {
    for (const cells of this.cells)
      cells.forEachCell(x - reach, z - reach, x + reach, z + reach, (cell) => {
        for (let k = cells.starts[cell]!; k < cells.starts[cell + 1]!; k += 1) {
          // Most of a cell is not within reach: what is cut out of a triangle is no nearer than that.
          if (isBeyond(this.triangles, cells.entries[k]!, x, z, reach)) continue;
          const corners = clipToHeights(this.triangles, cells.entries[k]!, low, high);
          if (corners === 0) continue;
          const { distance, px, pz } = distanceInPlan(corners, x, z);
          if (distance <= reach) found(px, pz, distance, cells.entries[k]! / TRIANGLE);
        }
      });
  }

  /** Is anything between two points, metres? */
  meets(a: readonly [number, number, number], b: readonly [number, number, number]): boolean {
    const way = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const length = Math.hypot(...way);
    if (length === 0) return false;
    return this.first(a, [way[0] / length, way[1] / length, way[2] / length], length) !== null;
  }

  /** Does all of a triangle lie to one side of what a line spans? Most of a cell does. */
  private isApart(o: number, { x0, y0, z0, x1, y1, z1 }: LineBox): boolean {
    const t = this.triangles;
    const ay = t[o + 1]!;
    const by = t[o + 4]!;
    const cy = t[o + 7]!;
    if ((ay < y0 && by < y0 && cy < y0) || (ay > y1 && by > y1 && cy > y1)) return true;
    const ax = t[o]!;
    const bx = t[o + 3]!;
    const cx = t[o + 6]!;
    if ((ax < x0 && bx < x0 && cx < x0) || (ax > x1 && bx > x1 && cx > x1)) return true;
    const az = t[o + 2]!;
    const bz = t[o + 5]!;
    const cz = t[o + 8]!;
    return (az < z0 && bz < z0 && cz < z0) || (az > z1 && bz > z1 && cz > z1);
  }

  /** Möller & Trumbore 1997, both sides; −1 where the line misses. Numbers by themselves: lists of three cost half of it. */
  private crosses(o: number, a: readonly [number, number, number], b: readonly [number, number, number]): number {
    const t = this.triangles;
    const ox = t[o]!;
    const oy = t[o + 1]!;
    const oz = t[o + 2]!;
    const ux = t[o + 3]! - ox;
    const uy = t[o + 4]! - oy;
    const uz = t[o + 5]! - oz;
    const vx = t[o + 6]! - ox;
    const vy = t[o + 7]! - oy;
    const vz = t[o + 8]! - oz;
    const dx = b[0] - a[0];
    const dy = b[1] - a[1];
    const dz = b[2] - a[2];
    const px = dy * vz - dz * vy;
    const py = dz * vx - dx * vz;
    const pz = dx * vy - dy * vx;
    const det = ux * px + uy * py + uz * pz;
    if (Math.abs(det) < 1e-12) return -1;
    const tx = a[0] - ox;
    const ty = a[1] - oy;
    const tz = a[2] - oz;
    const u = (tx * px + ty * py + tz * pz) / det;
    // A little slack: what passes exactly through the edge of two triangles meets both, not none.
    if (u < -SLACK || u > 1 + SLACK) return -1;
    const qx = ty * uz - tz * uy;
    const qy = tz * ux - tx * uz;
    const qz = tx * uy - ty * ux;
    const v = (dx * qx + dy * qy + dz * qz) / det;
    if (v < -SLACK || u + v > 1 + SLACK) return -1;
    const at = (vx * qx + vy * qy + vz * qz) / det;
    return at >= 0 && at <= 1 ? at : -1;
  }
}

/** Does all of a triangle lie farther to one side in plan than a reach? */
function isBeyond(t: Float32Array, o: number, x: number, z: number, reach: number): boolean {
  const ax = t[o]! - x;
  const bx = t[o + 3]! - x;
  const cx = t[o + 6]! - x;
  if ((ax > reach && bx > reach && cx > reach) || (ax < -reach && bx < -reach && cx < -reach)) return true;
  const az = t[o + 2]! - z;
  const bz = t[o + 5]! - z;
  const cz = t[o + 8]! - z;
  return (az > reach && bz > reach && cz > reach) || (az < -reach && bz < -reach && cz < -reach);
}

const SLACK = 1e-6;
/** What a line spans is taken so much wider that the slack of wide triangles still lies in it, metres. */
const ABOUT = 1e-4;

/** What a line spans, metres. */
interface LineBox {
  x0: number;
  y0: number;
  z0: number;
  x1: number;
  y1: number;
  z1: number;
}

const boxOf = (a: readonly [number, number, number], b: readonly [number, number, number]): LineBox => ({
  x0: Math.min(a[0], b[0]) - ABOUT,
  y0: Math.min(a[1], b[1]) - ABOUT,
  z0: Math.min(a[2], b[2]) - ABOUT,
  x1: Math.max(a[0], b[0]) + ABOUT,
  y1: Math.max(a[1], b[1]) + ABOUT,
  z1: Math.max(a[2], b[2]) + ABOUT,
});
