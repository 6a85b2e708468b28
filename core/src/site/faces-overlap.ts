/** Faces that reach into each other by less only touch, metres; of small ones, this part of the smaller one's extent. */
const TOUCH = 0.0002;
const TOUCH_PART = 0.01;

interface Mesh {
  positions: Float32Array;
  indices: Uint32Array;
}

/**
 * Do two triangles that lie in one plane cover a place of it together? Told in the two axes that the plane is seen in
 * best, by the lines of their edges (separating axes): what only touches does not overlap.
 * @param at, by offsets of their first corners in the indices
 * @param drop the axis that is nearest to the plane's normal: 0, 1 or 2
 */
export function facesOverlap(one: Mesh, at: number, two: Mesh, by: number, drop: number): boolean {
  corners(one, at, drop, a);
  corners(two, by, drop, b);
  const least = Math.min(TOUCH, TOUCH_PART * Math.min(extent(a), extent(b)));
  return reaches(a, b, least) && reaches(b, a, least);
}

/** The two axes that a plane is seen in along the third. */
export const axesBeside = (drop: number): readonly [number, number] =>
  drop === 0 ? [1, 2] : drop === 1 ? [0, 2] : [0, 1];

const a = new Float64Array(6);
const b = new Float64Array(6);

function corners({ positions, indices }: Mesh, at: number, drop: number, out: Float64Array): void {
  const [u, v] = axesBeside(drop);
  for (let k = 0; k < 3; k += 1) {
    const from = 3 * indices[at + k]!;
    out[2 * k] = positions[from + u]!;
    out[2 * k + 1] = positions[from + v]!;
  }
}

function extent(t: Float64Array): number {
  const size = (k: number) => Math.max(t[k]!, t[k + 2]!, t[k + 4]!) - Math.min(t[k]!, t[k + 2]!, t[k + 4]!);
  return Math.max(size(0), size(1));
}

/** Does `other` reach over each edge of `t`, to the side that `t` is on, by more than `least`? */
function reaches(t: Float64Array, other: Float64Array, least: number): boolean {
  const turn = (t[2]! - t[0]!) * (t[5]! - t[1]!) - (t[3]! - t[1]!) * (t[4]! - t[0]!);
  if (turn === 0) return false;
  for (let k = 0; k < 3; k += 1) {
    const [i, j] = [2 * k, (2 * k + 2) % 6];
    const [ex, ey] = [t[j]! - t[i]!, t[j + 1]! - t[i + 1]!];
    const inward = Math.sign(turn) / (Math.hypot(ex, ey) || 1);
    let most = -Infinity;
    for (let c = 0; c < 6; c += 2)
      most = Math.max(most, inward * (ex * (other[c + 1]! - t[i + 1]!) - ey * (other[c]! - t[i]!)));
    if (most <= least) return false;
  }
  return true;
}
