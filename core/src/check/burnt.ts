import { LEAST_EXPOSURE, type CheckLimits, type StillCamera } from '../document/index.ts';
import type { StillFinding } from './still-finding.ts';

/** How light the picture of a still is. */
export interface Burnt {
  /** How much of it is white with nothing drawn in it, 0…1. */
  part: number;
  /** So many stops darker, no more of it is burnt out than the limit allows; null where that is not known yet. */
  darker: number | null;
}

/** Exposures are said to a tenth of a stop. */
const TENTHS = 10;

/** A window, a lamp or a wall in the sun that burns out: it is mended by a darker picture. */
export function burntFindings(
  { pose, lens }: StillCamera,
  { part, darker }: Burnt,
  limits: CheckLimits,
): StillFinding[] {
  if (part <= limits.burntOut) return [];
  const wanted = darker === null ? null : Math.floor(TENTHS * ((lens.exposure ?? 0) - darker)) / TENTHS;
  const mended = wanted !== null && wanted >= LEAST_EXPOSURE ? { pose, lens: { ...lens, exposure: wanted } } : null;
  return [{ rule: 'burnt out', severity: 'note', worst: part, limit: limits.burntOut, point: null, fix: mended }];
}
