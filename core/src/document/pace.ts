import { z } from 'zod';
import { finite, idSchema, within } from './primitives.ts';
import { wayAnchorSchema } from './track.ts';

/**
 * constant: one speed throughout; soft: starts and stops within the acceleration limit; ease both, ease out of rest and
 * ease to rest: minimum jerk over the whole length; carry: quick, slow in the middle, quick.
 */
export const paceShapeSchema = z.enum(['constant', 'soft', 'ease both', 'ease out of rest', 'ease to rest', 'carry']);
export type PaceShape = z.infer<typeof paceShapeSchema>;

/** What a pace may say: speeds in m/s, pauses, pins and whole moves in seconds, lengths in metres. */
export const PACE_LIMITS = {
  speed: [0.0005, 50],
  duration: [0.1, 3600],
  pause: [0.1, 600],
  pin: [0.04, 3600],
  length: [0.001, 100_000],
  /** degrees a second */
  turning: [2, 360],
} as const;

/** Marks, pauses or pins of one move at most, each. */
export const MOST_PACE_ITEMS = 100;

/** A stretch of the path that is walked at a speed of its own. */
export const paceMarkSchema = z.object({
  id: idSchema,
  /** Its middle. */
  anchor: wayAnchorSchema,
  /** metres */
  length: within(PACE_LIMITS.length),
  /** m/s */
  speed: within(PACE_LIMITS.speed),
});
export type PaceMark = z.infer<typeof paceMarkSchema>;

/** A place where the walker stands still. */
export const pauseSchema = z.object({ id: idSchema, anchor: wayAnchorSchema, seconds: within(PACE_LIMITS.pause) });
export type Pause = z.infer<typeof pauseSchema>;

/** A place that is reached at a time. */
export const timingPinSchema = z.object({ id: idSchema, anchor: wayAnchorSchema, time: within(PACE_LIMITS.pin) });
export type TimingPin = z.infer<typeof timingPinSchema>;

/** The slow place of a pace that carries over its cuts. */
export const carrySchema = z.object({
  /** When it is slowest, as a part of the time. */
  at: finite.min(0.1).max(0.9),
  /** How slow, as a part of the speed at the ends. */
  slow: finite.min(0.05).max(1),
});

/** A pace that is kept as it was: so many instants at most. */
export const MOST_KEPT = 1001;

const keptSchema = z
  .array(finite.min(0).max(1))
  .min(2)
  .max(MOST_KEPT)
  .refine((parts) => parts.every((part, i) => part >= (parts[i - 1] ?? 0)), 'A pace that is kept never goes back.')
  .refine((parts) => parts[0] === 0 && parts.at(-1) === 1, 'A pace that is kept goes from the start to the end.');

export const paceSchema = z.object({
  /** Which of the two numbers leads; the other follows. */
  by: z.enum(['speed', 'duration']),
  /** Walking speed between the ends, m/s. */
  speed: within(PACE_LIMITS.speed),
  /** Length of the move, seconds. */
  duration: within(PACE_LIMITS.duration),
  shape: paceShapeSchema,
  carry: carrySchema.optional(),
  /**
   * Parts of the way that are gone at even times, where the pace is kept as it was in another move. As long as it is there,
   * shape, marks, pauses, pins and corners wait.
   */
  kept: keptSchema.optional(),
  marks: z.array(paceMarkSchema).max(MOST_PACE_ITEMS).optional(),
  pauses: z.array(pauseSchema).max(MOST_PACE_ITEMS).optional(),
  pins: z.array(timingPinSchema).max(MOST_PACE_ITEMS).optional(),
  /** Corners are taken so that the way turns no faster than this, degrees a second. */
  turning: within(PACE_LIMITS.turning).optional(),
});
export type Pace = z.infer<typeof paceSchema>;
