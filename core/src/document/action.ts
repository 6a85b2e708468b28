import { z } from 'zod';
import { finite, idSchema, vec3Schema } from './primitives.ts';

const shared = {
  /** The model that moves, or a part of which does. */
  model: idSchema,
  /** When it begins, seconds into the move. */
  start: finite.min(0).max(3600).default(0),
};

export const repeatSchema = z.enum(['once', 'again', 'to and fro']);
/** What happens at the end: it stays there, begins anew, or goes back the way it came. */
export type Repeat = z.infer<typeof repeatSchema>;

/** A movement as it came with the file, found again by its name. */
const recordedActionSchema = z.object({
  kind: z.literal('recorded'),
  ...shared,
  movement: z.string().min(1).max(500),
  /** Seconds of the movement in one second of the move. */
  speed: finite.min(0.05).max(20).default(1),
  repeat: repeatSchema.default('once'),
});
export type RecordedAction = z.infer<typeof recordedActionSchema>;

/** A part turning steadily about its own middle. */
const spinActionSchema = z.object({
  kind: z.literal('spin'),
  ...shared,
  /** Name of the part within its model, or the beginning that a group of parts shares. */
  part: z.string().min(1).max(500),
  /** Direction of the axis in the model's own coordinates, of any length but zero: it turns with the model. */
  axis: vec3Schema.refine((axis) => Math.hypot(...axis) > 1e-6, 'an axis needs a direction'),
  /** Radians a second, counter-clockwise seen against the axis. */
  rate: finite.min(-100).max(100),
});
export type SpinAction = z.infer<typeof spinActionSchema>;

/** A movement of an object, on the time of the move that is played. */
export const actionBodySchema = z.discriminatedUnion('kind', [recordedActionSchema, spinActionSchema]);
export type ActionBody = z.infer<typeof actionBodySchema>;
