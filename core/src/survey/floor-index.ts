import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';

/** Steeper than this is no floor, degrees. */
const WALKABLE_SLOPE = 45;

/** Side of a plan cell, metres: small enough that a cell holds a handful of triangles of a furnished room. */
const CELL = 0.5;

/** Triangles that one could stand on, in the order they came: the part of a model that floor following needs. */
export function walkableTriangles(soup: TriangleSoup, slope = WALKABLE_SLOPE): TriangleSoup {
  const level = Math.cos((slope * Math.PI) / 180);
  const normal = new Float64Array(3);
  const keep: number[] = [];
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    triangleNormal(soup, i, normal);
    const area2 = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    if (area2 > 1e-10 && normal[1]! > level * area2) keep.push(i);
  }
  const out = new Float32Array(keep.length * TRIANGLE);
  keep.forEach((i, k) => out.set(soup.subarray(i * TRIANGLE, (i + 1) * TRIANGLE), k * TRIANGLE));
  return out;
}

/**
 * Answers "which floors are above and below this point?" A vertical ray needs no tree: triangles are put into
 * square plan cells, and a lookup tests the few of one cell. It is some ten times faster than a general ray caster
 * and is built in one pass.
 */
export class FloorIndex {
  /** Walkable triangles only; see {@link walkableTriangles}. */
  readonly triangles: TriangleSoup;
  private readonly minX: number;
  private readonly minZ: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly cell: number;
  /** Start of each cell's list in `entries`, one more at the end. */
  private readonly starts: Uint32Array;
  private readonly entries: Uint32Array;

  constructor(walkable: TriangleSoup) {
    this.triangles = walkable;
    const count = walkable.length / TRIANGLE;
    let [minX, minZ, maxX, maxZ] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = 0; k < walkable.length; k += 3) {
      minX = Math.min(minX, walkable[k]!);
      maxX = Math.max(maxX, walkable[k]!);
      minZ = Math.min(minZ, walkable[k + 2]!);
      maxZ = Math.max(maxZ, walkable[k + 2]!);
    }
    const [spanX, spanZ] = count > 0 ? [maxX - minX, maxZ - minZ] : [0, 0];
    // A huge site gets larger cells instead of an index larger than the model.
    this.cell = Math.max(CELL, Math.sqrt((spanX * spanZ) / 1_000_000));
    this.minX = count > 0 ? minX : 0;
    this.minZ = count > 0 ? minZ : 0;
    this.columns = Math.max(1, Math.ceil(spanX / this.cell));
    this.rows = Math.max(1, Math.ceil(spanZ / this.cell));
    const cells = this.columns * this.rows;
    const counts = new Uint32Array(cells + 1);
    this.eachCell(count, (cell) => (counts[cell + 1]! += 1));
    for (let c = 0; c < cells; c += 1) counts[c + 1]! += counts[c]!;
    this.starts = counts.slice();
    this.entries = new Uint32Array(counts[cells]!);
    this.eachCell(count, (cell, triangle) => {
      this.entries[counts[cell]!] = triangle;
      counts[cell]! += 1;
    });
  }

  /**
   * The highest floor at (x, z) that is not above `ceiling`; −Infinity where there is none.
   * Points on a shared edge belong to both triangles: a seam is no hole.
   */
  floorBelow(x: number, z: number, ceiling: number): number {
    let best = -Infinity;
    const cell = this.cellAt(x, z);
    if (cell < 0) return best;
    for (let k = this.starts[cell]!; k < this.starts[cell + 1]!; k += 1) {
      const y = this.heightIn(this.entries[k]! * TRIANGLE, x, z);
      if (y <= ceiling && y > best) best = y;
    }
    return best;
  }

  /** The lowest surface at (x, z) above `floor`; Infinity where there is none. */
  nextAbove(x: number, z: number, floor: number): number {
    let best = Infinity;
    const cell = this.cellAt(x, z);
    if (cell < 0) return best;
    for (let k = this.starts[cell]!; k < this.starts[cell + 1]!; k += 1) {
      const y = this.heightIn(this.entries[k]! * TRIANGLE, x, z);
      if (y > floor && y < best) best = y;
    }
    return best;
  }

  private cellAt(x: number, z: number): number {
    const column = Math.floor((x - this.minX) / this.cell);
    const row = Math.floor((z - this.minZ) / this.cell);
    // The far edge belongs to the last cell.
    const c = column === this.columns && x - this.minX <= this.columns * this.cell ? column - 1 : column;
    const r = row === this.rows && z - this.minZ <= this.rows * this.cell ? row - 1 : row;
    return c < 0 || r < 0 || c >= this.columns || r >= this.rows ? -1 : r * this.columns + c;
  }

  /** Height of the triangle at offset `o` over (x, z); NaN where it is not over it (NaN compares false). */
  private heightIn(o: number, x: number, z: number): number {
    const t = this.triangles;
    const ax = t[o]! - x;
    const az = t[o + 2]! - z;
    const bx = t[o + 3]! - x;
    const bz = t[o + 5]! - z;
    const cx = t[o + 6]! - x;
    const cz = t[o + 8]! - z;
    // Areas opposite each corner: all of one sign where (x, z) is inside an upward face.
    const wa = bz * cx - bx * cz;
    const wb = cz * ax - cx * az;
    const wc = az * bx - ax * bz;
    const total = wa + wb + wc;
    const slack = -1e-6 * Math.abs(total) - 1e-9;
    if (wa < slack || wb < slack || wc < slack || total <= 0) return Number.NaN;
    return (wa * t[o + 1]! + wb * t[o + 4]! + wc * t[o + 7]!) / total;
  }

  private eachCell(count: number, visit: (cell: number, triangle: number) => void): void {
    const t = this.triangles;
    for (let i = 0; i < count; i += 1) {
      const o = i * TRIANGLE;
      const clampColumn = (x: number) =>
        Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.minX) / this.cell)));
      const clampRow = (z: number) => Math.min(this.rows - 1, Math.max(0, Math.floor((z - this.minZ) / this.cell)));
      const c0 = clampColumn(Math.min(t[o]!, t[o + 3]!, t[o + 6]!) - 1e-6);
      const c1 = clampColumn(Math.max(t[o]!, t[o + 3]!, t[o + 6]!) + 1e-6);
      const r0 = clampRow(Math.min(t[o + 2]!, t[o + 5]!, t[o + 8]!) - 1e-6);
      const r1 = clampRow(Math.max(t[o + 2]!, t[o + 5]!, t[o + 8]!) + 1e-6);
      for (let r = r0; r <= r1; r += 1) for (let c = c0; c <= c1; c += 1) visit(r * this.columns + c, i);
    }
  }
}
