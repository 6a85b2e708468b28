import { z } from 'zod';
import { frameSchema } from './frame.ts';
import { lensSchema } from './lens.ts';
import { lightChoiceSchema } from './light.ts';
import { fileRefSchema, groupNameSchema, quaternionSchema, vec3Schema } from './primitives.ts';

export const poseSchema = z.object({ position: vec3Schema, orientation: quaternionSchema });
export type Pose = z.infer<typeof poseSchema>;

/** How far a view has come, on its way to the client. */
export const viewStatusSchema = z.enum(['draft', 'ready', 'approved']);
export type ViewStatus = z.infer<typeof viewStatusSchema>;

/** A word that views are found by, 1–40 characters. */
export const tagSchema = z.string().trim().min(1).max(40);

export const viewBodySchema = z.object({
  pose: poseSchema,
  lens: lensSchema,
  light: lightChoiceSchema,
  /** Its own frame; without it the project's. */
  frame: frameSchema.optional(),
  /** Without it: a draft. */
  status: viewStatusSchema.optional(),
  /** What the studio has to say about it; clients do not see it. */
  note: z.string().max(2000).optional(),
  /** Words that views are found and gathered by. */
  tags: z.array(tagSchema).max(20).optional(),
  /** The group that it stands in, in the list. */
  group: groupNameSchema.optional(),
  /** Its pose and lens stay as they are until it is unlocked. */
  locked: z.boolean().optional(),
  /** A small picture of exactly this view; null until one has been drawn. */
  thumbnail: fileRefSchema.nullable().default(null),
});
export type ViewBody = z.infer<typeof viewBodySchema>;

/** What a still is taken with. */
export type StillCamera = Pick<ViewBody, 'pose' | 'lens'>;
