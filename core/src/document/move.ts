import { z } from 'zod';
import { looking } from './camera-parts.ts';
import { followSchema, rideSchema } from './carried.ts';
import { glideSchema } from './glide.ts';
import { orbitSchema } from './orbit.ts';
import { pathSchema } from './path.ts';
import { travelSchema } from './travel.ts';
import { finite, idSchema } from './primitives.ts';
import { paceSchema } from './pace.ts';

/** Places that one way is found through at most. */
export const MOST_WAY_PLACES = 100;

export const walkSchema = z.object({
  kind: z.literal('walk'),
  path: pathSchema,
  /** Metres above the floor under the eye. */
  eyeHeight: finite.min(0.3).max(3),
  pace: paceSchema,
  ...looking,
  /** Its tracks keep the pace of the way: what they change, changes as fast as it goes. */
  together: z.literal(true).optional(),
  /** Its way was found through places: their nodes, and what they are called. */
  found: z
    .object({
      places: z.array(z.object({ node: idSchema, name: z.string().max(500) })).max(MOST_WAY_PLACES),
    })
    .optional(),
});
export type Walk = z.infer<typeof walkSchema>;

export const moveBodySchema = z.discriminatedUnion('kind', [
  walkSchema,
  orbitSchema,
  travelSchema,
  glideSchema,
  rideSchema,
  followSchema,
]);
export type MoveBody = z.infer<typeof moveBodySchema>;

/** A body that has to be a walk. @throws TypeError for another kind */
export function walkOf(body: MoveBody): Walk {
  if (body.kind !== 'walk') throw new TypeError(`a walk was expected, not ${body.kind}`);
  return body;
}
