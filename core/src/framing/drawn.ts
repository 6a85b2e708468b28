import type { Quaternion } from '../document/index.ts';
import { orientationOf, toRadians } from '../geometry/index.ts';

/** How buildings are drawn without perspective. */
export type Drawn = 'plan' | 'north' | 'east' | 'south' | 'west' | 'isometric' | 'dimetric' | 'steep';

/** The corner that axonometric pictures are seen from: to the right of the front. */
const CORNER = 45;

/**
 * Isometric: all three axes are shortened alike, seen at atan(1 / √2) from above. Dimetric: width and height alike and
 * depth half as long, which is seen 20.70° from the front and 19.47° from above (the 7° and 42° axes). Both: ISO 5456-3,
 * from memory; the angles follow from the lengths. Steep: as from a balloon, 60° from above (common practice).
 */
const ANGLES: Record<Drawn, { side: number; down: number }> = {
  plan: { side: 180, down: 90 },
  north: { side: 0, down: 0 },
  east: { side: 90, down: 0 },
  south: { side: 180, down: 0 },
  west: { side: 270, down: 0 },
  isometric: { side: 180 - CORNER, down: (180 / Math.PI) * Math.atan(Math.SQRT1_2) },
  dimetric: { side: 180 - 20.7048, down: 19.4712 },
  steep: { side: 180 - CORNER, down: 60 },
};

/**
 * The orientation of a picture without perspective. By the plan's own axes, as buildings stand square to them: its “north”
 * is the plan's upper edge, −Z.
 */
export function drawnFrom(drawn: Drawn): Quaternion {
  const { side, down } = ANGLES[drawn];
  return orientationOf({ pan: Math.PI - toRadians(side), tilt: -toRadians(down), roll: 0 });
}
