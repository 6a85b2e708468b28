/** Cubic Hermite spline over a unit of time: p and q with the tangents m and n (glTF 2.0, C.5). */
export function hermite(p: number, m: number, q: number, n: number, t: number): number {
  const [t2, t3] = [t * t, t * t * t];
  return (2 * t3 - 3 * t2 + 1) * p + (t3 - 2 * t2 + t) * m + (3 * t2 - 2 * t3) * q + (t3 - t2) * n;
}

/**
 * Slopes of a cubic through unevenly spaced values that stays monotone between them; level at both ends
 * (harmonic mean of the neighbours' slopes: Fritsch & Butland 1984, "A method for constructing local monotone piecewise
 * cubic interpolants").
 */
export function monotoneSlopes(times: ArrayLike<number>, values: ArrayLike<number>): Float64Array {
  const slopes = new Float64Array(times.length);
  for (let i = 1; i + 1 < times.length; i += 1) {
    const [before, after] = [times[i]! - times[i - 1]!, times[i + 1]! - times[i]!];
    const [rise, next] = [(values[i]! - values[i - 1]!) / before, (values[i + 1]! - values[i]!) / after];
    if (rise * next <= 0) continue;
    const [w1, w2] = [2 * after + before, after + 2 * before];
    slopes[i] = (w1 + w2) / (w1 / rise + w2 / next);
  }
  return slopes;
}

/** Slope at a point between two rises of evenly spaced values, limited so that the cubic never overshoots (Fritsch & Carlson 1980). */
export function monotoneSlope(before: number, after: number): number {
  if (before * after <= 0) return 0;
  const mean = (before + after) / 2;
  const limit = 3 * Math.min(Math.abs(before), Math.abs(after));
  return Math.sign(mean) * Math.min(Math.abs(mean), limit);
}
