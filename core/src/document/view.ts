import { z } from 'zod';
import { lensSchema } from './lens.ts';
import { lightChoiceSchema } from './light.ts';
import { fileRefSchema, quaternionSchema, vec3Schema } from './primitives.ts';

export const poseSchema = z.object({ position: vec3Schema, orientation: quaternionSchema });
export type Pose = z.infer<typeof poseSchema>;

export const viewBodySchema = z.object({
  pose: poseSchema,
  lens: lensSchema,
  light: lightChoiceSchema,
  /** A small picture of exactly this view; null until one has been drawn. */
  thumbnail: fileRefSchema.nullable().default(null),
});
export type ViewBody = z.infer<typeof viewBodySchema>;
