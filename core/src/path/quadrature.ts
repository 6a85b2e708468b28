/**
 * Gauss–Legendre nodes and weights on [−1, 1].
 * Source: Abramowitz & Stegun, Handbook of Mathematical Functions, table 25.4 (n = 5).
 */
export const GAUSS5_X = [0, 0.538469310105683, -0.538469310105683, 0.906179845938664, -0.906179845938664] as const;
export const GAUSS5_W = [
  0.568888888888889, 0.478628670499366, 0.478628670499366, 0.236926885056189, 0.236926885056189,
] as const;

/** ∫ f over [from, to] with one five-point rule. */
export function gauss5(f: (t: number) => number, from: number, to: number): number {
  const half = (to - from) / 2;
  const middle = (to + from) / 2;
  let sum = 0;
  for (let i = 0; i < 5; i += 1) sum += GAUSS5_W[i]! * f(middle + half * GAUSS5_X[i]!);
  return sum * half;
}

/**
 * Length of a parametric curve of any dimension by adaptive Gauss–Legendre quadrature of its speed.
 * An interval is halved until one rule over it agrees with two rules over its halves.
 * @param speed |dP/dt| at a parameter
 * @param tolerance wanted relative error
 */
export function arcLength(speed: (t: number) => number, from: number, to: number, tolerance = 1e-9): number {
  const measure = (a: number, b: number, whole: number, depth: number): number => {
    const middle = (a + b) / 2;
    const left = gauss5(speed, a, middle);
    const right = gauss5(speed, middle, b);
    if (depth === 0 || Math.abs(left + right - whole) <= tolerance * Math.abs(left + right)) return left + right;
    return measure(a, middle, left, depth - 1) + measure(middle, b, right, depth - 1);
  };
  return measure(from, to, gauss5(speed, from, to), 24);
}
