import { z } from 'zod';
import { looking } from './camera-parts.ts';
import { finite, idSchema, quaternionSchema, vec3Schema } from './primitives.ts';

/** A part that moves, and carries a camera. */
export const carrierSchema = z.object({
  model: idSchema,
  /** Name of the part within its model. */
  name: z.string().min(1).max(2000),
  /** Its middle at rest when it was chosen, metres: where the camera stays if it is gone. */
  centre: vec3Schema,
});
export type Carrier = z.infer<typeof carrierSchema>;

const timed = {
  /** seconds */
  duration: finite.min(0.1).max(3600),
  ...looking,
};

/** A camera on, or led by, something that moves. */
export const rideSchema = z.object({
  kind: z.literal('ride'),
  carrier: carrierSchema.nullable(),
  /** From the carrier's middle to the camera while the carrier is at rest, metres. */
  seat: vec3Schema,
  /** Where the camera looks while the carrier is at rest. */
  facing: quaternionSchema,
  /** Seconds by which it follows softly; 0: it is fixed to it. */
  softness: finite.min(0).max(10),
  /** The horizon stays level, or leans with the carrier. */
  horizon: z.enum(['level', 'with it']),
  ...timed,
});
export type Ride = z.infer<typeof rideSchema>;

/** A camera that stands, and keeps its eye on something. */
export const followSchema = z.object({
  kind: z.literal('follow'),
  position: vec3Schema,
  /** The lens changes so that what is looked at keeps the size that it has at first. */
  holdSize: z.literal(true).optional(),
  ...timed,
});
export type Follow = z.infer<typeof followSchema>;
