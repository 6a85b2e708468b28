import { GOLDEN_ANGLE } from './angles.ts';
import { samePlace } from './same-place.ts';

/** Ways that are looked along: so many that a ball is held to a hundredth of its size. */
const WAYS = 400;

let ways: Float64Array | null = null;

/** Unit vectors evenly spread over all directions (a spiral by the golden angle), three numbers each. */
function spreadWays(): Float64Array {
  if (ways) return ways;
  ways = new Float64Array(3 * WAYS);
  for (let i = 0; i < WAYS; i += 1) {
    const y = 1 - (2 * (i + 0.5)) / WAYS;
    const flat = Math.sqrt(1 - y * y);
    ways.set([flat * Math.cos(GOLDEN_ANGLE * i), y, flat * Math.sin(GOLDEN_ANGLE * i)], 3 * i);
  }
  return ways;
}

/** How much it takes to find the outline of so many corners: comparisons. */
export const outlineEffort = (corners: number): number => corners * WAYS;

/**
 * The corners of a thing that stick out farthest, each of one of many directions: whatever holds these holds all of it, to
 * 1 % of its size. A box has eight of them, a ball some hundreds.
 * @param pieces coordinates of its corners, three numbers each, metres
 */
export function outlineOf(pieces: readonly Float32Array[]): Float32Array {
  const w = spreadWays();
  const p = differentCorners(pieces);
  const farthest = new Set<number>();
  for (let i = 0; i < w.length; i += 3) {
    const [wx, wy, wz] = [w[i]!, w[i + 1]!, w[i + 2]!];
    let most = -Infinity;
    let at = -1;
    for (let o = 0; o < p.length; o += 3) {
      const along = wx * p[o]! + wy * p[o + 1]! + wz * p[o + 2]!;
      if (along > most) {
        most = along;
        at = o;
      }
    }
    if (at >= 0) farthest.add(at);
  }
  return Float32Array.from([...farthest].flatMap((o) => [p[o]!, p[o + 1]!, p[o + 2]!]));
}

/** Faces that meet at an edge bring its corners each for themselves: four times as many as there are places. */
function differentCorners(pieces: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(pieces.reduce((n, { length }) => n + length, 0));
  pieces.reduce((at, piece) => (all.set(piece, at), at + piece.length), 0);
  let kept = 0;
  samePlace(all).forEach((first, v) => {
    if (first !== v) return;
    all.copyWithin(kept, 3 * v, 3 * v + 3);
    kept += 3;
  });
  return all.subarray(0, kept);
}
