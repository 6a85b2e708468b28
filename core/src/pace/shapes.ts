import type { Pace } from '../document/index.ts';
import { minimumJerk } from '../geometry/index.ts';

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

/** A speed over unit time whose highest value is 1, and the way covered by then. */
export interface UnitShape {
  speed(tau: number): number;
  way(tau: number): number;
  /** way(1) */
  whole: number;
  /** Is it at rest at its beginning and its end? */
  rests: { start: boolean; end: boolean };
}

/** Where a carry is slowest, and how slow, unless somebody says otherwise. */
export const FIRST_CARRY = { at: 0.5, slow: 0.4 } as const;

/** What a named shape is; `soft` has none of its own: it is what the limits make of a constant speed with rest at both ends. */
export function unitShape({ shape, carry = FIRST_CARRY }: Pick<Pace, 'shape' | 'carry'>): UnitShape {
  switch (shape) {
    case 'soft':
      return { ...CONSTANT, rests: { start: true, end: true } };
    case 'constant':
      return CONSTANT;
    case 'ease both':
      return {
        speed: (tau) => minimumJerkSpeed(tau) / MINIMUM_JERK_PEAK,
        way: (tau) => minimumJerk(tau) / MINIMUM_JERK_PEAK,
        whole: 1 / MINIMUM_JERK_PEAK,
        rests: { start: true, end: true },
      };
    case 'ease out of rest':
      return { speed: minimumJerk, way: minimumJerkArea, whole: 0.5, rests: { start: true, end: false } };
    case 'ease to rest':
      return {
        speed: (tau) => minimumJerk(1 - tau),
        way: (tau) => 0.5 - minimumJerkArea(1 - tau),
        whole: 0.5,
        rests: { start: false, end: true },
      };
    case 'carry': {
      const { at, slow } = carry;
      const lost = 1 - slow;
      const whole = (1 + slow) / 2;
      const side = (tau: number, width: number) => tau - lost * width * minimumJerkArea(tau / width);
      return {
        speed: (tau) => 1 - lost * minimumJerk(tau < at ? tau / at : (1 - tau) / (1 - at)),
        way: (tau) => (tau < at ? side(tau, at) : whole - side(1 - tau, 1 - at)),
        whole,
        rests: { start: false, end: false },
      };
    }
  }
}

const CONSTANT: UnitShape = {
  speed: () => 1,
  way: (tau) => tau,
  whole: 1,
  rests: { start: false, end: false },
};
