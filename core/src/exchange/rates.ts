import type { Rate } from '../document/index.ts';

/** Rates that films are made at, exactly (SMPTE ST 12-1, and the cinema's 24 and 48). */
export const USUAL_RATES: readonly Rate[] = [
  { num: 24_000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60_000, den: 1001 },
  { num: 60, den: 1 },
];

/** The rate that a rounded number means: 29.97 is 30000/1001; a number near none is taken as it is. */
export function rateNear(perSecond: number): Rate {
  const near = USUAL_RATES.find(({ num, den }) => Math.abs(num / den - perSecond) < 0.01);
  return near ?? { num: Math.max(1, Math.round(perSecond * 1000)), den: 1000 };
}
