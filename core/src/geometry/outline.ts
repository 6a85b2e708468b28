/** Ways that are looked along: so many that a ball is held to a hundredth of its size. */
const WAYS = 400;

let ways: Float64Array | null = null;

/** Unit vectors evenly spread over all directions (Fibonacci's lattice), three numbers each. */
function spreadWays(): Float64Array {
  if (ways) return ways;
  ways = new Float64Array(3 * WAYS);
  const turn = Math.PI * (3 - Math.sqrt(5));
  for (let i = 0; i < WAYS; i += 1) {
    const y = 1 - (2 * (i + 0.5)) / WAYS;
    const flat = Math.sqrt(1 - y * y);
    ways.set([flat * Math.cos(turn * i), y, flat * Math.sin(turn * i)], 3 * i);
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
export function outlineOf(pieces: readonly ArrayLike<number>[]): Float32Array {
  const w = spreadWays();
  const most = new Float64Array(WAYS).fill(-Infinity);
  const at = Array.from({ length: WAYS }, (): readonly [number, number] => [-1, -1]);
  pieces.forEach((p, piece) => {
    for (let o = 0; o < p.length; o += 3) {
      const [x, y, z] = [p[o]!, p[o + 1]!, p[o + 2]!];
      for (let i = 0; i < WAYS; i += 1) {
        const along = w[3 * i]! * x + w[3 * i + 1]! * y + w[3 * i + 2]! * z;
        if (along > most[i]!) {
          most[i] = along;
          at[i] = [piece, o];
        }
      }
    }
  });
  const seen = new Map<string, number[]>();
  for (const [piece, o] of at) {
    const p = pieces[piece];
    if (p) seen.set(`${p[o]} ${p[o + 1]} ${p[o + 2]}`, [p[o]!, p[o + 1]!, p[o + 2]!]);
  }
  return Float32Array.from([...seen.values()].flat());
}
