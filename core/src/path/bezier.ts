/**
 * A plan curve as a chain of cubic Béziers in one flat array: eight numbers a segment
 * [x0, z0, x1, z1, x2, z2, x3, z3]. Centripetal Catmull–Rom spans and rounded corners both become this one form,
 * so everything after it (length, inverse, drawing) knows a single kind of curve.
 */
export type BezierChain = Float64Array;

export const STRIDE = 8;

/** Writes the point at parameter `t` ∈ [0, 1] of the segment that starts at `base` into `out` as [x, z]. */
export function bezierPoint(chain: BezierChain, base: number, t: number, out: Float64Array, at = 0): void {
  const u = 1 - t;
  const b0 = u * u * u;
  const b1 = 3 * u * u * t;
  const b2 = 3 * u * t * t;
  const b3 = t * t * t;
  out[at] = b0 * chain[base]! + b1 * chain[base + 2]! + b2 * chain[base + 4]! + b3 * chain[base + 6]!;
  out[at + 1] = b0 * chain[base + 1]! + b1 * chain[base + 3]! + b2 * chain[base + 5]! + b3 * chain[base + 7]!;
}

/** Writes the derivative by `t` into `out` as [dx, dz]. */
export function bezierDerivative(chain: BezierChain, base: number, t: number, out: Float64Array, at = 0): void {
  const u = 1 - t;
  const b0 = 3 * u * u;
  const b1 = 6 * u * t;
  const b2 = 3 * t * t;
  for (let axis = 0; axis < 2; axis += 1) {
    const p0 = chain[base + axis]!;
    const p1 = chain[base + 2 + axis]!;
    const p2 = chain[base + 4 + axis]!;
    const p3 = chain[base + 6 + axis]!;
    out[at + axis] = b0 * (p1 - p0) + b1 * (p2 - p1) + b2 * (p3 - p2);
  }
}

/** Splits the segment at `base` at `t` by de Casteljau's construction and returns both halves. */
export function splitBezier(chain: BezierChain, base: number, t: number): [Float64Array, Float64Array] {
  const first = new Float64Array(STRIDE);
  const second = new Float64Array(STRIDE);
  for (let axis = 0; axis < 2; axis += 1) {
    const p0 = chain[base + axis]!;
    const p1 = chain[base + 2 + axis]!;
    const p2 = chain[base + 4 + axis]!;
    const p3 = chain[base + 6 + axis]!;
    const p01 = p0 + (p1 - p0) * t;
    const p12 = p1 + (p2 - p1) * t;
    const p23 = p2 + (p3 - p2) * t;
    const p012 = p01 + (p12 - p01) * t;
    const p123 = p12 + (p23 - p12) * t;
    const mid = p012 + (p123 - p012) * t;
    first.set([p0], axis);
    first.set([p01], axis + 2);
    first.set([p012], axis + 4);
    first.set([mid], axis + 6);
    second.set([mid], axis);
    second.set([p123], axis + 2);
    second.set([p23], axis + 4);
    second.set([p3], axis + 6);
  }
  return [first, second];
}
