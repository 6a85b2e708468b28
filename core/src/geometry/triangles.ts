/**
 * A triangle soup in world space: nine numbers a triangle [ax, ay, az, bx, by, bz, cx, cy, cz], metres, y up.
 * The survey works on this and on nothing else, whatever file it came from.
 */
export type TriangleSoup = Float32Array;

export const TRIANGLE = 9;

/**
 * Writes the unnormalised normal (length = twice the area) of the triangle whose corners begin at a, b and c in
 * `positions` into `out`.
 */
export function cornerNormal(positions: Float32Array, a: number, b: number, c: number, out: Float64Array): void {
  const ux = positions[b]! - positions[a]!;
  const uy = positions[b + 1]! - positions[a + 1]!;
  const uz = positions[b + 2]! - positions[a + 2]!;
  const vx = positions[c]! - positions[a]!;
  const vy = positions[c + 1]! - positions[a + 1]!;
  const vz = positions[c + 2]! - positions[a + 2]!;
  out[0] = uy * vz - uz * vy;
  out[1] = uz * vx - ux * vz;
  out[2] = ux * vy - uy * vx;
}

/** {@link cornerNormal} of triangle `i` of a soup. */
export const triangleNormal = (soup: TriangleSoup, i: number, out: Float64Array): void =>
  cornerNormal(soup, i * TRIANGLE, i * TRIANGLE + 3, i * TRIANGLE + 6, out);

const scratch = new Float64Array(3);

/** Area of the triangle whose corners begin at a, b and c in `positions`, square metres. */
export function cornerArea(positions: Float32Array, a: number, b: number, c: number): number {
  cornerNormal(positions, a, b, c, scratch);
  return Math.hypot(scratch[0]!, scratch[1]!, scratch[2]!) / 2;
}

/**
 * Which of a direction and its opposite a normal is: planes are told by one of both, whichever side their faces show. The
 * two part where hardly any face lies.
 */
export const isOpposite = (n: ArrayLike<number>): boolean => 0.31 * n[0]! + 0.77 * n[1]! + 0.56 * n[2]! < 0;

/** The axis along which a vector is longest, 0…2; the first of those that are. @param o where it begins */
export function longestAxis(n: ArrayLike<number>, o = 0): number {
  let axis = 0;
  for (let k = 1; k < 3; k += 1) if (Math.abs(n[o + k]!) > Math.abs(n[o + axis]!)) axis = k;
  return axis;
}
