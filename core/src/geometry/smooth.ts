/** 0 up to one value, 1 from another on, and softly between: a cubic that is level at both. */
export function smooth(from: number, to: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/**
 * Minimum-jerk travel of a whole unit in unit time: 10τ³ − 15τ⁴ + 6τ⁵.
 * Source: Flash & Hogan 1985, "The coordination of arm movements". Its peak speed is 1.875 × the mean.
 */
export function minimumJerk(tau: number): number {
  return tau * tau * tau * (10 + tau * (-15 + 6 * tau));
}
