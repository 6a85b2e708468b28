import { z } from 'zod';
import { followSchema, rideSchema } from './carried.ts';
import { glideSchema } from './glide.ts';
import { lensSchema } from './lens.ts';
import { lightChoiceSchema } from './light.ts';
import { orbitSchema } from './orbit.ts';
import { pathSchema } from './path.ts';
import { travelSchema } from './travel.ts';
import { gazeSchema, gazeSpanSchema, MOST_SPANS } from './gaze.ts';
import { finite } from './primitives.ts';
import { paceSchema } from './pace.ts';
import { tracksSchema } from './track.ts';

export const walkSchema = z.object({
  kind: z.literal('walk'),
  path: pathSchema,
  /** Metres above the floor under the eye. */
  eyeHeight: finite.min(0.3).max(3),
  pace: paceSchema,
  /** Where the eye looks wherever no span says otherwise. */
  gaze: gazeSchema,
  gazeSpans: z.array(gazeSpanSchema).max(MOST_SPANS).optional(),
  lens: lensSchema,
  light: lightChoiceSchema,
  /** Its tracks keep the pace of the way: what they change, changes as fast as it goes. */
  together: z.literal(true).optional(),
  tracks: tracksSchema.optional(),
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
