import { z } from 'zod';
import { looking } from './camera-parts.ts';
import { paceSchema } from './pace.ts';
import { pathSchema } from './path.ts';
import { finite, within } from './primitives.ts';

/** How high a glide may be kept above the ground, and how far from everything, metres: over a ring by millimetres. */
export const GLIDE_LIMITS = { above: [0.0005, 5000], clearance: [0.0005, 1000] } as const;

/** Where a glide is in the section. */
export const glideHeightSchema = z.discriminatedUnion('by', [
  /** As its nodes are. */
  z.object({ by: z.literal('drawn') }),
  /** At one height, metres. */
  z.object({ by: z.literal('level'), height: finite.min(-1000).max(20_000) }),
  /** So much above the ground, and never nearer than the clearance to anything under it, metres. */
  z.object({ by: z.literal('ground'), above: within(GLIDE_LIMITS.above), clearance: within(GLIDE_LIMITS.clearance) }),
]);
export type GlideHeight = z.infer<typeof glideHeightSchema>;

/** A camera that goes along a path in the air, or on a rail. Heights of its nodes are its own. */
export const glideSchema = z.object({
  kind: z.literal('glide'),
  path: pathSchema,
  height: glideHeightSchema,
  pace: paceSchema,
  ...looking,
  /** Its tracks keep the pace of the way: what they change, changes as fast as it goes. */
  together: z.literal(true).optional(),
});
export type Glide = z.infer<typeof glideSchema>;
