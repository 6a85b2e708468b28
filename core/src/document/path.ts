import { z } from 'zod';
import { finite, idSchema } from './primitives.ts';

/** No site reaches farther than this, nor rises higher, metres: what is said beyond it is damage. */
export const FARTHEST_PLACE = 100_000;
const place = finite.min(-FARTHEST_PLACE).max(FARTHEST_PLACE);

/** Corners are rounded by no more than this, metres. */
export const MOST_ROUNDING = 100;

/** A point that a path goes through. The eye finds the real floor; the height says which of several is meant. */
export const pathNodeSchema = z.object({
  id: idSchema,
  x: place,
  /** Height of the surface that it was put on, metres; of its storey where {@link surface} is not set. */
  y: place,
  z: place,
  /** The height is that of a surface. Nodes of old knew their storey only. */
  surface: z.literal(true).optional(),
  kind: z.enum(['smooth', 'corner']).default('smooth'),
  /** Rounding of a corner, metres. Never cuts further than half the shorter leg. */
  radius: finite.min(0).max(MOST_ROUNDING).default(0.5),
});
export type PathNode = z.infer<typeof pathNodeSchema>;

/** Nodes of one path at most. */
export const MOST_NODES = 2000;

export const pathSchema = z.object({
  nodes: z.array(pathNodeSchema).max(MOST_NODES),
  closed: z.boolean().default(false),
});
export type Path = z.infer<typeof pathSchema>;
