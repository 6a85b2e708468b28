import type { Bounds } from '../document/index.ts';
import { sizesOf } from '../geometry/index.ts';
import type { Thing } from './terms.ts';

/** A part of a site, as far as it tells whether a picture can be about it. */
export interface Candidate extends Thing {
  /** What it is, where its file says so. */
  role: string | null;
  materials: readonly { clear: boolean }[];
}

/** A wall, a partition, a door and a pane are as high, as wide and as thin, metres; a painting is lower, a wardrobe thicker. */
const PLATE = { high: 1.8, wide: 0.6, thin: 0.3 } as const;

export function isPlate(bounds: Bounds): boolean {
  const [x, y, z] = sizesOf(bounds);
  return y > PLATE.high && Math.min(x, z) < PLATE.thin && Math.max(x, z) > PLATE.wide;
}

/** What pictures can be about: no window, which is looked through, whatever its frame is made of, and no door. */
export const thingsOf = (parts: readonly Candidate[]): Thing[] =>
  parts
    .filter(({ role, materials, bounds }) => {
      if (role === 'window' || role === 'door') return false;
      // A show case is clear as well, but it is no plate.
      const thin = Math.min(...sizesOf(bounds)) < PLATE.thin;
      return materials.some(({ clear }) => !clear) && !(thin && materials.some(({ clear }) => clear));
    })
    .map(({ name, bounds }) => ({ name, bounds }));
