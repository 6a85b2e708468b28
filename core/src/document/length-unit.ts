import type { Bounds } from './model.ts';

/** What lengths are shown and typed in. Everything is kept in metres. */
export interface LengthUnit {
  name: 'm' | 'mm';
  /** One of it, metres. */
  metres: number;
  /** Places after the point. */
  digits: number;
  /** Steps that hands and keys go by are made for buildings: here they are so much of that. */
  steps: number;
}

export const METRES: LengthUnit = { name: 'm', metres: 1, digits: 2, steps: 1 };
export const MILLIMETRES: LengthUnit = { name: 'mm', metres: 0.001, digits: 1, steps: 0.01 };

/** Products and furniture are dimensioned in millimetres: what is no larger than this, metres (common practice, no source). */
export const LARGEST_PRODUCT = 2.5;

/** What lengths of a site are shown in. @param bounds of all of it; null while it is not known */
export function lengthUnitOf(bounds: Bounds | null): LengthUnit {
  if (!bounds) return METRES;
  const largest = Math.max(...bounds.max.map((most, k) => most - bounds.min[k]!));
  return largest <= LARGEST_PRODUCT ? MILLIMETRES : METRES;
}

/** How much of a small thing’s size the eye is over it, where over a floor it is at the height of people. */
const OVER_SMALL = 0.4;

/** How high an eye is put over what is under it, metres: over a product no higher than a part of its size. */
export const eyesOver = ({ min, max }: Bounds, eyes: number): number =>
  Math.min(eyes, OVER_SMALL * Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]));

/** A number with so many places after the point; what rounds to nothing has no sign. */
export const fixed = (value: number, digits: number): string => value.toFixed(digits).replace(/^-(?=0\.?0*$)/, '');

/** A length as a number in a unit. @param digits places after the point where it is metres */
export const lengthNumber = (metres: number, unit: LengthUnit, digits = METRES.digits): string =>
  metres === Infinity ? '∞' : fixed(metres / unit.metres, unit === METRES ? digits : unit.digits);

/** The same with its unit. */
export const lengthText = (metres: number, unit: LengthUnit, digits?: number): string =>
  `${lengthNumber(metres, unit, digits)} ${unit.name}`;

/** A unit that lengths are part of, and how many of it are one of those in metres: metres, and metres a second. */
export function shownIn(unit: string, { name, metres }: LengthUnit): { unit: string; times: number } {
  const [length, ...rest] = unit.split('/');
  return length === 'm' ? { unit: [name, ...rest].join('/'), times: 1 / metres } : { unit, times: 1 };
}
