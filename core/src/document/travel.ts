import { z } from 'zod';
import { looking } from './camera-parts.ts';
import { finite, idSchema, quaternionSchema, vec3Schema } from './primitives.ts';

/** No travel is longer than this, seconds. */
export const LONGEST_TRAVEL = 3600;
/** Poses of one travel at most. */
export const MOST_POSES = 500;

/** How a travel goes on from a pose: softly through space, in a straight line from rest to rest, or round its subject. */
export const spanKindSchema = z.enum(['smooth', 'straight', 'round']);
export type SpanKind = z.infer<typeof spanKindSchema>;

/** A pose that a camera takes at a time. */
export const travelPoseSchema = z.object({
  id: idSchema,
  /** When it is reached, seconds. */
  time: finite.min(0).max(LONGEST_TRAVEL),
  /** How long it stays there, seconds. */
  hold: finite.min(0).max(600).default(0),
  position: vec3Schema,
  orientation: quaternionSchema,
  /** How it goes on to the next one. */
  span: spanKindSchema.default('smooth'),
});
export type TravelPose = z.infer<typeof travelPoseSchema>;

/** A camera that goes through kept poses at their times. */
export const travelSchema = z.object({
  kind: z.literal('travel'),
  /** In the order of their times. */
  poses: z
    .array(travelPoseSchema)
    .max(MOST_POSES)
    .refine(
      (poses) => poses.every(({ time }, i) => i === 0 || time >= poses[i - 1]!.time),
      'poses are in order of time',
    ),
  /** level: pan and tilt like a head on its neck, the horizon stays level; free: the shortest turn, however it lies. */
  turning: z.enum(['level', 'free']).default('level'),
  /** It begins and ends at rest, or is on its way at both ends, ready for a cut. */
  ends: z.enum(['rest', 'running']).default('rest'),
  /** One speed along the whole way: times of poses between the ends follow from it. */
  even: z.literal(true).optional(),
  /** What spans go round, metres. */
  subject: vec3Schema.optional(),
  ...looking,
});
export type Travel = z.infer<typeof travelSchema>;
