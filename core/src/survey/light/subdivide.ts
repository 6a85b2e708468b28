import type { ScenePart } from '../../format/index.ts';
import { planWidth, samePlace } from '../../geometry/index.ts';
import { GrowingPart } from './growing-part.ts';

/** A part wider than this is landscape: its light changes over longer distances, metres. */
const LANDSCAPE = 30;
/** Slats, rails and boards narrower than this show no gradient across; along them a few points are enough, metres. */
const NARROW = 0.3;
const NARROW_FACTOR = 3.5;
/** Between the fewest pieces of a needle (its length) and the most (its length squared), in edges wanted. */
const NEEDLE = 0.2;

/** Lengths this near to each other, relatively, are the same: a model far away is cut as the same one at the origin. */
const ALIKE = 1e-4;

/** The edge wanted for a part: as asked for a building, longer for a landscape. */
const edgeFor = (part: ScenePart, edge: number): number => edge * Math.max(1, planWidth(part.positions) / LANDSCAPE);

/** The edge that a triangle with these sides may keep. */
function limitFor(sides: readonly [number, number, number], edge: number): number {
  const [a, b, c] = sides;
  const longest = Math.max(a, b, c);
  const half = (a + b + c) / 2;
  const area = Math.sqrt(Math.max(0, half * (half - a) * (half - b) * (half - c)));
  return (2 * area) / longest < NARROW * (1 - ALIKE) ? edge * NARROW_FACTOR : edge;
}

/** Distance of two vertices, metres. */
const side = (p: ArrayLike<number>, a: number, b: number): number =>
  Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!);

/** Corners nearer than this are one place, metres. */
const SAME_PLACE = 1e-4;

/** What each edge of a part may keep: the least that the triangles at it ask for. Without this they would gape. */
function edgeLimits({ positions: p, indices }: ScenePart, edge: number): (a: number, b: number) => number {
  const ids = samePlace(p, SAME_PLACE);
  const keyOf = (a: number, b: number) => Math.min(ids[a]!, ids[b]!) * ids.length + Math.max(ids[a]!, ids[b]!);
  const limits = new Map<number, number>();
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k]!, indices[k + 1]!, indices[k + 2]!];
    const limit = limitFor([side(p, a, b), side(p, b, c), side(p, c, a)], edge);
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const key = keyOf(from, to);
      limits.set(key, Math.min(limit, limits.get(key) ?? Infinity));
    }
  }
  return (a, b) => limits.get(keyOf(a, b))!;
}

/**
 * Cuts triangles at the middle of an edge until none is longer than it may be, so that light can change across a wall.
 * Neighbours cut a shared edge at the same points, also where one of them is narrow.
 */
export function subdivide(part: ScenePart, wanted: number): ScenePart {
  const edge = edgeFor(part, wanted);
  const fine = new GrowingPart(part);
  const indices: number[] = [];
  const middles = new Map<number, number>();
  const length = (a: number, b: number) => fine.length(a, b);
  const middle = (a: number, b: number): number => {
    const key = a < b ? a * 4_194_304 + b : b * 4_194_304 + a;
    const known = middles.get(key);
    if (known !== undefined) return known;
    const made = fine.between(a, b);
    middles.set(key, made);
    return made;
  };
  /** `own` is the limit of edges within the triangle, the others are those of its sides. */
  const cut = (a: number, b: number, c: number, own: number, ab: number, bc: number, ca: number): void => {
    const over = [length(a, b) / ab, length(b, c) / bc, length(c, a) / ca] as const;
    const most = Math.max(...over);
    if (most <= 1 + ALIKE || fine.positions.length > 12_000_000) indices.push(a, b, c);
    else if (over[0] >= most * (1 - ALIKE)) {
      const m = middle(a, b);
      cut(a, m, c, own, ab, own, ca);
      cut(m, b, c, own, ab, bc, own);
    } else if (over[1] >= most * (1 - ALIKE)) {
      const m = middle(b, c);
      cut(a, b, m, own, ab, bc, own);
      cut(a, m, c, own, own, bc, ca);
    } else {
      const m = middle(c, a);
      cut(a, b, m, own, ab, own, ca);
      cut(m, b, c, own, own, bc, ca);
    }
  };
  const limitOf = edgeLimits(part, edge);
  for (let k = 0; k < part.indices.length; k += 3) {
    const [a, b, c] = [part.indices[k]!, part.indices[k + 1]!, part.indices[k + 2]!];
    const own = limitFor([length(a, b), length(b, c), length(c, a)], edge);
    cut(a, b, c, own, limitOf(a, b), limitOf(b, c), limitOf(c, a));
  }
  return fine.made(indices);
}

/** About how many triangles {@link subdivide} makes of a part. */
export function subdividedCount(part: ScenePart, wanted: number): number {
  const edge = edgeFor(part, wanted);
  let count = 0;
  const p = part.positions;
  for (let k = 0; k < part.indices.length; k += 3) {
    const [a, b, c] = [part.indices[k]!, part.indices[k + 1]!, part.indices[k + 2]!];
    const sides: [number, number, number] = [side(p, a, b), side(p, b, c), side(p, c, a)];
    const limit = limitFor(sides, edge);
    // Halving ends with triangles of about an eighth of the limit squared (a quarter for right-angled ones).
    const half = (sides[0] + sides[1] + sides[2]) / 2;
    const area = Math.sqrt(Math.max(0, half * (half - sides[0]) * (half - sides[1]) * (half - sides[2])));
    const long = Math.max(...sides) / limit;
    // A needle makes needles when it is cut: as many as its length squared asks for, however little its area.
    count += Math.max(1, Math.ceil(long) - 1, NEEDLE * long * long, (7 * area) / (limit * limit));
  }
  return count;
}
