import { TRIANGLE, type TriangleSoup } from '../geometry/index.ts';

/** More cells than this make an index larger than the model: cells grow instead. */
const MOST_CELLS = 1_000_000;
/** Width of the seam by which a triangle reaches into its neighbours' cells, metres. */
const SEAM = 1e-6;

/** Some triangles of a soup, sorted into the square plan cells that their plan extents touch. */
export class PlanCells {
  /** Start of each cell's list in `entries`, one more at the end. */
  readonly starts: Uint32Array;
  /** Offsets of triangles in the soup. */
  readonly entries: Uint32Array;
  private readonly minX: number;
  private readonly minZ: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly cell: number;

  /**
   * @param which numbers of the triangles
   * @param extents plan extents of all triangles of the soup; see {@link planExtents}
   * @param cell side of a cell wanted, metres
   */
  constructor(which: Uint32Array, extents: Float64Array, cell: number) {
    let [minX, minZ, maxX, maxZ] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const triangle of which) {
      const e = 4 * triangle;
      if (extents[e]! < minX) minX = extents[e]!;
      if (extents[e + 1]! < minZ) minZ = extents[e + 1]!;
      if (extents[e + 2]! > maxX) maxX = extents[e + 2]!;
      if (extents[e + 3]! > maxZ) maxZ = extents[e + 3]!;
    }
    const some = which.length > 0;
    const [spanX, spanZ] = some ? [maxX - minX, maxZ - minZ] : [0, 0];
    this.cell = Math.max(cell, Math.sqrt((spanX * spanZ) / MOST_CELLS));
    this.minX = some ? minX : 0;
    this.minZ = some ? minZ : 0;
    this.columns = Math.max(1, Math.ceil(spanX / this.cell));
    this.rows = Math.max(1, Math.ceil(spanZ / this.cell));
    const cells = this.columns * this.rows;
    // Counted first, then filled: two passes over the same ranges, and no list ever grows.
    const next = new Uint32Array(cells + 1);
    const ranges = new Int32Array(4 * which.length);
    for (let i = 0; i < which.length; i += 1) {
      const e = 4 * which[i]!;
      const c0 = (ranges[4 * i] = this.clamp(extents[e]! - SEAM - this.minX, this.columns));
      const r0 = (ranges[4 * i + 1] = this.clamp(extents[e + 1]! - SEAM - this.minZ, this.rows));
      const c1 = (ranges[4 * i + 2] = this.clamp(extents[e + 2]! + SEAM - this.minX, this.columns));
      const r1 = (ranges[4 * i + 3] = this.clamp(extents[e + 3]! + SEAM - this.minZ, this.rows));
      for (let r = r0; r <= r1; r += 1) for (let c = c0; c <= c1; c += 1) next[r * this.columns + c + 1]! += 1;
    }
    for (let c = 0; c < cells; c += 1) next[c + 1]! += next[c]!;
    this.starts = next.slice();
    this.entries = new Uint32Array(next[cells]!);
    for (let i = 0; i < which.length; i += 1)
      for (let r = ranges[4 * i + 1]!; r <= ranges[4 * i + 3]!; r += 1)
        for (let c = ranges[4 * i]!; c <= ranges[4 * i + 2]!; c += 1) {
          const at = r * this.columns + c;
          this.entries[next[at]!] = which[i]! * TRIANGLE;
          next[at]! += 1;
        }
  }

  /** Number of the cell at a point of the plan; −1 outside. */
  cellAt(x: number, z: number): number {
    const column = Math.floor((x - this.minX) / this.cell);
    const row = Math.floor((z - this.minZ) / this.cell);
    // The far edge belongs to the last cell.
    const c = column === this.columns && x - this.minX <= this.columns * this.cell ? column - 1 : column;
    const r = row === this.rows && z - this.minZ <= this.rows * this.cell ? row - 1 : row;
    return c < 0 || r < 0 || c >= this.columns || r >= this.rows ? -1 : r * this.columns + c;
  }

  /** Calls for every cell that a rectangle of the plan touches. */
  forEachCell(x0: number, z0: number, x1: number, z1: number, visit: (cell: number) => void): void {
    if (x1 < this.minX - SEAM || z1 < this.minZ - SEAM) return;
    if (x0 > this.minX + this.columns * this.cell + SEAM || z0 > this.minZ + this.rows * this.cell + SEAM) return;
    const c1 = this.clamp(x1 - this.minX, this.columns);
    const r1 = this.clamp(z1 - this.minZ, this.rows);
    for (let r = this.clamp(z0 - this.minZ, this.rows); r <= r1; r += 1)
      for (let c = this.clamp(x0 - this.minX, this.columns); c <= c1; c += 1) visit(r * this.columns + c);
  }

  private clamp(distance: number, count: number): number {
    const at = Math.floor(distance / this.cell);
    return at < 0 ? 0 : at >= count ? count - 1 : at;
  }
}

/** Plan extents of all triangles of a soup: least x, least z, most x, most z of each. */
export function planExtents(t: TriangleSoup): Float64Array {
  const out = new Float64Array((t.length / TRIANGLE) * 4);
  for (let o = 0, e = 0; o < t.length; o += TRIANGLE, e += 4) {
    out[e] = Math.min(t[o]!, t[o + 3]!, t[o + 6]!);
    out[e + 1] = Math.min(t[o + 2]!, t[o + 5]!, t[o + 8]!);
    out[e + 2] = Math.max(t[o]!, t[o + 3]!, t[o + 6]!);
    out[e + 3] = Math.max(t[o + 2]!, t[o + 5]!, t[o + 8]!);
  }
  return out;
}
