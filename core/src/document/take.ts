import { z } from 'zod';
import { fileRefSchema, finite, idSchema, rateSchema } from './primitives.ts';

const shared = {
  /** Counts up within a project and is never given twice; 0 asks the server for the next one. */
  number: z.int().min(0),
  /** The move, view or reel that was rendered, with its name at that time. */
  source: z.object({ kind: z.enum(['move', 'view', 'reel']), id: idSchema, name: z.string().max(120) }),
  width: z.int().min(16).max(16_384),
  height: z.int().min(16).max(16_384),
  /** Sub-frames accumulated into each frame. */
  subframes: z.int().min(1).max(256),
  file: fileRefSchema,
  /** A small still for galleries. */
  poster: fileRefSchema.nullable().default(null),
  /** Seconds of machine time the take cost. */
  renderSeconds: finite.min(0),
};

export const takeBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('still'), ...shared }),
  z.object({ kind: z.literal('video'), ...shared, rate: rateSchema, frames: z.int().min(1) }),
]);
export type TakeBody = z.infer<typeof takeBodySchema>;
