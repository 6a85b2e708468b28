/**
 * Minimum-jerk travel of a whole unit in unit time: 10τ³ − 15τ⁴ + 6τ⁵.
 * Source: Flash & Hogan 1985, "The coordination of arm movements". Its peak speed is 1.875 × the mean.
 */
export function minimumJerk(tau: number): number {
  return tau * tau * tau * (10 + tau * (-15 + 6 * tau));
}

/** d/dτ of {@link minimumJerk}: 30τ²(1 − τ)². */
export function minimumJerkSpeed(tau: number): number {
  return 30 * tau * tau * (1 - tau) * (1 - tau);
}

/** Peak of {@link minimumJerkSpeed}. */
export const MINIMUM_JERK_PEAK = 1.875;

/** ∫₀^τ of {@link minimumJerk}: the way covered while the speed itself rises by minimum jerk. */
export function minimumJerkArea(tau: number): number {
  const t4 = tau * tau * tau * tau;
  return t4 * (2.5 + tau * (-3 + tau));
}
