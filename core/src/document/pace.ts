import { z } from 'zod';
import { finite, idSchema } from './primitives.ts';
import { wayAnchorSchema } from './track.ts';

/**
 * constant: one speed throughout; soft: starts and stops within the acceleration limit; ease both, ease out of rest and
 * ease to rest: minimum jerk over the whole length; carry: quick, slow in the middle, quick.
 */
export const paceShapeSchema = z.enum(['constant', 'soft', 'ease both', 'ease out of rest', 'ease to rest', 'carry']);
export type PaceShape = z.infer<typeof paceShapeSchema>;

/** Marks, pauses or pins of one move at most, each. */
export const MOST_PACE_ITEMS = 100;

/** A stretch of the path that is walked at a speed of its own. */
export const paceMarkSchema = z.object({
  id: idSchema,
  /** Its middle. */
  anchor: wayAnchorSchema,
  /** metres */
  length: finite.min(0.1).max(100_000),
  /** m/s */
  speed: finite.min(0.05).max(50),
});
export type PaceMark = z.infer<typeof paceMarkSchema>;

/** A place where the walker stands still. */
export const pauseSchema = z.object({ id: idSchema, anchor: wayAnchorSchema, seconds: finite.min(0.1).max(600) });
export type Pause = z.infer<typeof pauseSchema>;

/** A place that is reached at a time. */
export const timingPinSchema = z.object({ id: idSchema, anchor: wayAnchorSchema, time: finite.min(0.04).max(3600) });
export type TimingPin = z.infer<typeof timingPinSchema>;

/** The slow place of a pace that carries over its cuts. */
export const carrySchema = z.object({
  /** When it is slowest, as a part of the time. */
  at: finite.min(0.1).max(0.9),
  /** How slow, as a part of the speed at the ends. */
  slow: finite.min(0.05).max(1),
});

export const paceSchema = z.object({
  /** Which of the two numbers leads; the other follows. */
  by: z.enum(['speed', 'duration']),
  /** Walking speed between the ends, m/s. */
  speed: finite.min(0.05).max(50),
  /** Length of the move, seconds. */
  duration: finite.min(0.1).max(3600),
  shape: paceShapeSchema,
  carry: carrySchema.optional(),
  marks: z.array(paceMarkSchema).max(MOST_PACE_ITEMS).optional(),
  pauses: z.array(pauseSchema).max(MOST_PACE_ITEMS).optional(),
  pins: z.array(timingPinSchema).max(MOST_PACE_ITEMS).optional(),
  /** Corners are taken so that the way turns no faster than this, degrees a second. */
  turning: finite.min(2).max(360).optional(),
});
export type Pace = z.infer<typeof paceSchema>;
