import type { Vec3 } from '../document/index.ts';
import { cornerArea } from './triangles.ts';
import { cross, dot, less } from './vectors.ts';

/** A triangle is a needle where it is narrower than this part of its length. */
const NARROW = 1 / 60;
/** Corners of two triangles that lie in one plane by so much do, metres; and their normals agree by this cosine. */
const FLAT = 1e-4;
const SAME_WAY = 0.9999;
/** So often all needles are looked at, at most: each time they get shorter. */
const ROUNDS = 24;
/** Angles are compared down to this, radians. */
const ANGLE = 1e-4;

/**
 * The same surface with fewer needles: where a narrow triangle and its neighbour lie in one plane, the other diagonal of both
 * is taken where it makes their angles less acute (Lawson 1977). What rasterises a needle that is narrower than the raster of
 * its coordinates puts pixels of it anywhere between its ends, and before what covers it.
 * @param positions three coordinates a vertex, metres @param normals as many
 * @param indices three vertices a triangle
 * @returns as many triangles, of the same vertices; `indices` itself where nothing was changed
 */
export function withoutNeedles(positions: Float32Array, normals: Float32Array, indices: Uint32Array): Uint32Array {
  const first = needlesOf(positions, indices);
  if (first.length === 0) return indices;
  const mended = new Mended(positions, normals, indices.slice());
  let needles: readonly number[] = first;
  for (let round = 0; round < ROUNDS && needles.length > 0; round += 1)
    needles = [...new Set(needles.flatMap((triangle) => mended.flipAt(triangle)))];
  return mended.changed ? mended.indices : indices;
}

function needlesOf(p: Float32Array, indices: Uint32Array): number[] {
  const found: number[] = [];
  for (let t = 0; t < indices.length; t += 3)
    if (isNarrow(p, indices[t]!, indices[t + 1]!, indices[t + 2]!)) found.push(t);
  return found;
}

function isNarrow(p: Float32Array, a: number, b: number, c: number): boolean {
  const square = (from: number, to: number) =>
    (p[3 * to]! - p[3 * from]!) ** 2 +
    (p[3 * to + 1]! - p[3 * from + 1]!) ** 2 +
    (p[3 * to + 2]! - p[3 * from + 2]!) ** 2;
  return 2 * cornerArea(p, 3 * a, 3 * b, 3 * c) < NARROW * Math.max(square(a, b), square(a, c), square(b, c));
}

/** Triangles whose diagonals change. */
class Mended {
  changed = false;
  /** Triangles about a vertex, for those vertices that needles have. */
  private readonly about = new Map<number, Set<number>>();

  constructor(
    private readonly p: Float32Array,
    private readonly n: Float32Array,
    readonly indices: Uint32Array,
  ) {
    indices.forEach((v, i) => this.add(v, i - (i % 3)));
  }

  private add(v: number, triangle: number): void {
    const there = this.about.get(v);
    if (there) there.add(triangle);
    else this.about.set(v, new Set([triangle]));
  }

  /** Takes the other diagonal at one side of a triangle. @returns the triangles to be looked at again */
  flipAt(triangle: number): number[] {
    for (let k = 0; k < 3; k += 1) {
      const [a, b, c] = [0, 1, 2].map((i) => this.indices[triangle + ((k + i) % 3)]!) as [number, number, number];
      const other = this.across(triangle, a, b);
      if (other < 0) continue;
      const d = [0, 1, 2].map((i) => this.indices[other + i]!).find((v) => v !== a && v !== b)!;
      if (!this.betterWith(a, b, c, d)) continue;
      // a–b is the diagonal of a, d, b, c; c–d becomes it.
      this.put(triangle, [a, d, c]);
      this.put(other, [d, b, c]);
      this.changed = true;
      return [triangle, other];
    }
    return [];
  }

  /** The triangle that has the same side the other way round; −1 where none, or more than one, does. */
  private across(triangle: number, a: number, b: number): number {
    let found = -1;
    for (const other of this.about.get(a)!) {
      if (other === triangle || !this.about.get(b)!.has(other)) continue;
      if (found >= 0) return -1;
      for (let k = 0; k < 3; k += 1)
        if (this.indices[other + k] === b && this.indices[other + ((k + 1) % 3)] === a) found = other;
      if (found < 0) return -1;
    }
    return found;
  }

  private put(triangle: number, corners: readonly [number, number, number]): void {
    for (let k = 0; k < 3; k += 1) this.about.get(this.indices[triangle + k]!)!.delete(triangle);
    corners.forEach((v, k) => {
      this.indices[triangle + k] = v;
      this.add(v, triangle);
    });
  }

  /** Would c–d divide the quadrilateral a, d, b, c better than a–b does, and does it lie in one plane? */
  private betterWith(a: number, b: number, c: number, d: number): boolean {
    const { n } = this;
    for (const v of [b, c, d])
      if (n[3 * a]! * n[3 * v]! + n[3 * a + 1]! * n[3 * v + 1]! + n[3 * a + 2]! * n[3 * v + 2]! < SAME_WAY)
        return false;
    const [pa, pb, pc, pd] = [a, b, c, d].map((v) => this.placeOf(v)) as [Vec3, Vec3, Vec3, Vec3];
    // A needle says little about its plane: its normal is that of its corners.
    const up: Vec3 = [n[3 * a]!, n[3 * a + 1]!, n[3 * a + 2]!];
    if ([pb, pc, pd].some((place) => Math.abs(dot(less(place, pa), up)) > FLAT)) return false;
    // Each of the two new triangles looks the way that the old ones did.
    if (dot(cross(less(pd, pa), less(pc, pa)), up) <= 0 || dot(cross(less(pb, pd), less(pc, pd)), up) <= 0)
      return false;
    return angleAt(pc, pa, pb) + angleAt(pd, pa, pb) > Math.PI + ANGLE;
  }

  private placeOf(v: number): Vec3 {
    return [this.p[3 * v]!, this.p[3 * v + 1]!, this.p[3 * v + 2]!];
  }
}

/** The angle at p between a and b, radians. */
function angleAt(p: Vec3, a: Vec3, b: Vec3): number {
  const [u, v] = [less(a, p), less(b, p)];
  return Math.atan2(Math.hypot(...cross(u, v)), dot(u, v));
}
