import { z } from 'zod';
import { finite, idSchema } from './primitives.ts';

/** Metres along the path. */
const stationSchema = z.object({ by: z.literal('station'), station: finite.min(0).max(100_000) });
/** Metres along the path behind a node (before it, where negative). */
const nodeSchema = z.object({ by: z.literal('node'), node: idSchema, offset: finite.min(-100_000).max(100_000) });

/** Where a key is: at a time, at a place of the path, or a way behind one of its nodes, so that it goes along with it. */
export const anchorSchema = z.discriminatedUnion('by', [
  /** Seconds into the move. */
  z.object({ by: z.literal('time'), time: finite.min(0).max(36_000) }),
  stationSchema,
  nodeSchema,
]);
export type Anchor = z.infer<typeof anchorSchema>;

/** A place of the path: a station, or a way behind one of its nodes. */
export const wayAnchorSchema = z.discriminatedUnion('by', [stationSchema, nodeSchema]);
export type WayAnchor = z.infer<typeof wayAnchorSchema>;

/** How a value goes on from a key: softly, straight, or not at all until the next one. */
export const easeSchema = z.enum(['smooth', 'straight', 'hold']);
export type Ease = z.infer<typeof easeSchema>;

/** A value that something has at a place of a move. */
export const keySchema = z.object({
  id: idSchema,
  anchor: anchorSchema,
  value: finite,
  ease: easeSchema.default('smooth'),
});
export type Key = z.infer<typeof keySchema>;

/** Keys of one track at most. */
export const MOST_KEYS = 500;
const keysOf = (least: number, most: number) =>
  z.array(keySchema.extend({ value: finite.min(least).max(most) })).max(MOST_KEYS);

/** What changes along a move, whatever its kind; without keys it stays as the move says. */
export const tracksSchema = z.object({
  /** mm */
  focalLength: keysOf(1, 2000).optional(),
  /** Metres added to the eye height of a walk. */
  lift: keysOf(-10, 100).optional(),
  /** Lean to the left (positive), degrees. */
  roll: keysOf(-180, 180).optional(),
  /** Distance that is sharp, metres. */
  focus: keysOf(0.01, 100_000).optional(),
  fNumber: keysOf(0.5, 128).optional(),
  /** Lighter (positive) or darker, stops. */
  exposure: keysOf(-10, 10).optional(),
  /** Metres that the camera is shifted to the right, up, and forward, level with the ground. */
  truck: keysOf(-1000, 1000).optional(),
  pedestal: keysOf(-1000, 1000).optional(),
  dolly: keysOf(-1000, 1000).optional(),
  /** Degrees that it turns to the left and up, on top of where it looks. */
  pan: keysOf(-720, 720).optional(),
  tilt: keysOf(-90, 90).optional(),
});
export type Tracks = z.infer<typeof tracksSchema>;
export type TrackName = keyof Tracks;
