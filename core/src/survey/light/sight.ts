import { isLandscape, seesThrough, type SceneModel } from '../../format/index.ts';
import { boundsOf, cornerArea, joinBounds } from '../../geometry/index.ts';

/** Side of the cells that are full or empty, metres: walls are found, doors are open. */
const CELL = 0.5;
/** Cells at most: a larger site has larger ones. */
const MOST_CELLS = 4_000_000;
/** Corners from which walls at arm’s length and the surface itself are no hindrance, cells. */
const AT_EYE = 1.2;
const OFF_SURFACE = 1.2;
/** Steps along a sight line, cells. */
const STEP = 0.6;
/** Points that a triangle is filled by lie this near to each other, cells. */
const FILL = 0.4;
/** A cell with less surface in it than this is not full: rails, stems and hangers hide nothing. Sides of a cell, square. */
const FULL = 0.55;

/**
 * What stands in the way between an eye and a surface, roughly: cells that are full. Glass, leaves and the lie of the
 * land hide nothing. For questions that a few wrong answers do not hurt: it costs a hundredth of a ray.
 */
export class Sight {
  private readonly cell: number = CELL;
  private readonly min: readonly [number, number, number] = [0, 0, 0];
  private readonly size: readonly [number, number, number] = [0, 0, 0];
  /** Surface in each cell, sides of a cell, square. */
  private readonly full: Float32Array = new Float32Array(0);

  private readonly parts: SceneModel['parts'];

  /** Everything is free until {@link filling} is done. */
  constructor(model: SceneModel) {
    this.parts = model.parts.filter(
      (part) => !seesThrough(model.materials[part.material]!) && part.positions.length > 0 && !isLandscape(part),
    );
    const bounds = joinBounds(this.parts.map(({ positions }) => boundsOf(positions)));
    if (!bounds) return;
    const extent = [0, 1, 2].map((k) => bounds.max[k]! - bounds.min[k]!);
    this.cell = Math.max(CELL, Math.cbrt(extent.reduce((product, side) => product * (side + CELL), 1) / MOST_CELLS));
    this.min = bounds.min;
    this.size = extent.map((side) => Math.floor(side / this.cell) + 1) as unknown as [number, number, number];
    this.full = new Float32Array(this.size[0] * this.size[1] * this.size[2]);
  }

  /** Fills the cells, part after part: a second for a million triangles. */
  *filling(): Generator<void> {
    for (const { positions, indices } of this.parts) {
      for (let t = 0; t < indices.length; t += 3)
        this.fill(positions, 3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!);
      yield;
    }
  }

  /** May the place off a surface be seen from an eye? Coordinates in metres, the normal of length 1. */
  isFree(eye: readonly [number, number, number], p: Float32Array, o: number): boolean {
    if (this.full.length === 0) return true;
    const off = OFF_SURFACE * this.cell;
    const [dx, dy, dz] = [
      p[o]! + off * p[o + 3]! - eye[0],
      p[o + 1]! + off * p[o + 4]! - eye[1],
      p[o + 2]! + off * p[o + 5]! - eye[2],
    ];
    const distance = Math.hypot(dx, dy, dz);
    const step = STEP * this.cell;
    for (let t = AT_EYE * this.cell; t < distance; t += step) {
      const part = t / distance;
      if (this.isFull(eye[0] + part * dx, eye[1] + part * dy, eye[2] + part * dz)) return false;
    }
    return true;
  }

  private isFull(x: number, y: number, z: number): boolean {
    const at = this.indexOf(x, y, z);
    return at >= 0 && this.full[at]! >= FULL;
  }

  private indexOf(x: number, y: number, z: number): number {
    const { cell, min, size } = this;
    const [i, j, k] = [
      Math.floor((x - min[0]) / cell),
      Math.floor((y - min[1]) / cell),
      Math.floor((z - min[2]) / cell),
    ];
    if (i < 0 || j < 0 || k < 0 || i >= size[0] || j >= size[1] || k >= size[2]) return -1;
    return (k * size[1] + j) * size[0] + i;
  }

  /** Spreads a triangle over the cells that it lies in: along its two shorter sides. */
  private fill(p: Float32Array, a: number, b: number, c: number): void {
    const [ab, bc, ca] = [distance(p, a, b), distance(p, b, c), distance(p, c, a)];
    if (bc >= ab && bc >= ca) this.fillFrom(p, a, b, c, ab, ca);
    else if (ca >= ab) this.fillFrom(p, b, c, a, bc, ab);
    else this.fillFrom(p, c, a, b, ca, bc);
  }

  /** @param ab @param ac how far the others are from the first corner, metres */
  private fillFrom(p: Float32Array, a: number, b: number, c: number, ab: number, ac: number): void {
    const apart = FILL * this.cell;
    const rows = Math.max(1, Math.ceil(ab / apart));
    const columns = Math.max(1, Math.ceil(ac / apart));
    const across = (row: number) => Math.ceil((1 - row / rows) * columns);
    let points = 0;
    for (let row = 0; row <= rows; row += 1) points += across(row) + 1;
    const share = cornerArea(p, a, b, c) / (points * this.cell ** 2);
    for (let row = 0; row <= rows; row += 1) {
      const u = row / rows;
      const steps = across(row);
      for (let step = 0; step <= steps; step += 1) {
        const v = steps > 0 ? ((1 - u) * step) / steps : 0;
        const w = 1 - u - v;
        const at = this.indexOf(
          w * p[a]! + u * p[b]! + v * p[c]!,
          w * p[a + 1]! + u * p[b + 1]! + v * p[c + 1]!,
          w * p[a + 2]! + u * p[b + 2]! + v * p[c + 2]!,
        );
        if (at >= 0) this.full[at]! += share;
      }
    }
  }
}

const distance = (p: Float32Array, a: number, b: number): number =>
  Math.hypot(p[a]! - p[b]!, p[a + 1]! - p[b + 1]!, p[a + 2]! - p[b + 2]!);
