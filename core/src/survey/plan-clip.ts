import type { TriangleSoup } from '../geometry/index.ts';

/** Corners of the last clipped triangle: x, y, z each. A triangle cut by two planes has five at most. */
const kept = new Float64Array(18);
const other = new Float64Array(18);

/**
 * Cuts a triangle to a height range (Sutherland & Hodgman 1974); {@link distanceInPlan} reads the result.
 * @param o where the triangle's nine numbers begin
 * @returns how many corners are left; 0 where it does not reach into the range
 */
export function clipToHeights(t: TriangleSoup, o: number, low: number, high: number): number {
  const [a, b, c] = [t[o + 1]!, t[o + 4]!, t[o + 7]!];
  if ((a < low && b < low && c < low) || (a > high && b > high && c > high)) return 0;
  for (let k = 0; k < 9; k += 1) kept[k] = t[o + k]!;
  let corners = 3;
  if (a < low || b < low || c < low) corners = clip(corners, low, 1);
  if (a > high || b > high || c > high) corners = clip(corners, high, -1);
  return corners;
}

/** Keeps what is over (`side` 1) or under (−1) a height. */
function clip(corners: number, height: number, side: 1 | -1): number {
  let out = 0;
  const put = (x: number, y: number, z: number) => {
    other[3 * out] = x;
    other[3 * out + 1] = y;
    other[3 * out + 2] = z;
    out += 1;
  };
  for (let k = 0; k < corners; k += 1) {
    const [i, j] = [3 * k, 3 * ((k + 1) % corners)];
    const [ya, yb] = [side * (kept[i + 1]! - height), side * (kept[j + 1]! - height)];
    if (ya >= 0) put(kept[i]!, kept[i + 1]!, kept[i + 2]!);
    if (ya >= 0 === yb >= 0) continue;
    const part = ya / (ya - yb);
    put(kept[i]! + part * (kept[j]! - kept[i]!), height, kept[i + 2]! + part * (kept[j + 2]! - kept[i + 2]!));
  }
  kept.set(other);
  return out;
}

/** How far the last clipped triangle is from a place in plan, 0 inside it, and the nearest place of its outline. */
export function distanceInPlan(corners: number, x: number, z: number): { distance: number; px: number; pz: number } {
  let [best, px, pz] = [Infinity, 0, 0];
  let [left, right] = [0, 0];
  for (let k = 0; k < corners; k += 1) {
    const [i, j] = [3 * k, 3 * ((k + 1) % corners)];
    const [ax, az] = [kept[i]!, kept[i + 2]!];
    const [dx, dz] = [kept[j]! - ax, kept[j + 2]! - az];
    const length2 = dx * dx + dz * dz;
    const at = length2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (z - az) * dz) / length2)) : 0;
    const [qx, qz] = [ax + at * dx, az + at * dz];
    const distance = Math.hypot(qx - x, qz - z);
    if (distance < best) [best, px, pz] = [distance, qx, qz];
    const turn = dx * (z - az) - dz * (x - ax);
    if (turn > 0) left += 1;
    else if (turn < 0) right += 1;
  }
  // On one side of all its edges: inside; what stands upright has no inside.
  const inside = corners > 2 && left + right === corners && (left === 0 || right === 0);
  return { distance: inside ? 0 : best, px, pz };
}
