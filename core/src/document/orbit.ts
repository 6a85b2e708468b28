import { z } from 'zod';
import { seeing } from './camera-parts.ts';
import { carrySchema, PACE_LIMITS, paceShapeSchema } from './pace.ts';
import { finite, idSchema, vec3Schema } from './primitives.ts';

/** What an orbit goes round: a place, the middle of a named part, or the middle of a whole model. */
export const pivotSchema = z.discriminatedUnion('kind', [
  /** metres */
  z.object({ kind: z.literal('point'), point: vec3Schema }),
  z.object({
    kind: z.literal('object'),
    model: idSchema,
    /** Name of the part within its model. */
    name: z.string().min(1).max(2000),
    /** The whole model that the part belongs to, instead of the part alone. */
    whole: z.boolean().default(false),
    /** Its middle when it was chosen: where the orbit stays if it is gone, metres. */
    point: vec3Schema,
  }),
]);
export type Pivot = z.infer<typeof pivotSchema>;

/** How far away the camera keeps. */
export const orbitDistanceSchema = z.discriminatedUnion('by', [
  /** So far that the object fills this part of the frame at most, all the way round. */
  z.object({ by: z.literal('fit'), fill: finite.min(0.05).max(1) }),
  /** metres */
  z.object({ by: z.literal('radius'), radius: finite.min(0.001).max(50_000) }),
]);
export type OrbitDistance = z.infer<typeof orbitDistanceSchema>;

/** Stops of one orbit at most. */
export const MOST_STOPS = 50;

/** A camera that goes round something and looks at it. */
export const orbitSchema = z.object({
  kind: z.literal('orbit'),
  pivot: pivotSchema,
  /** Pan of the first look, radians: 0 looks along the plan's −Z, from the south of the pivot. */
  start: finite.min(-1000).max(1000),
  /** How far it goes round, radians; positive goes counter-clockwise in the plan. */
  sweep: finite.min(-200).max(200),
  /** How far above the pivot's level it stands, seen from the pivot, radians. */
  inclination: finite.min(-1.55).max(1.55),
  distance: orbitDistanceSchema,
  /** seconds */
  duration: finite.min(0.1).max(3600),
  shape: paceShapeSchema,
  carry: carrySchema.optional(),
  /** Angles at which it stands still, radians of the sweep, and how long, seconds. */
  stops: z
    .array(
      z.object({
        id: idSchema,
        angle: finite.min(0).max(200),
        seconds: finite.min(PACE_LIMITS.pause[0]).max(PACE_LIMITS.pause[1]),
      }),
    )
    .max(MOST_STOPS)
    .optional(),
  /** It goes there and back again, in the time that it has. */
  swings: z.literal(true).optional(),
  /** Metres that it rises over the whole sweep: a helix. */
  rise: finite.min(-10_000).max(10_000).optional(),
  /** Its distance at the end as a part of that at the beginning. */
  widens: finite.min(0.02).max(50).optional(),
  /** Not the camera goes round: the subject turns before it. */
  turns: z.literal('subject').optional(),
  /** Where the subject turns, its light stands; without this it turns along, as if the camera went round. */
  lightStands: z.literal(true).optional(),
  ...seeing,
  /** Its tracks keep the pace of the way: what they change, changes as fast as it goes. */
  together: z.literal(true).optional(),
});
export type Orbit = z.infer<typeof orbitSchema>;
