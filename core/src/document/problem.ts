import { z } from 'zod';
import { clashSchema } from './edit.ts';
import { kindRowSchema } from './row.ts';

/** Every refusal of the server has this shape. */
export const problemSchema = z.object({
  /** Stable and short, for programs. */
  code: z.string(),
  /** One or two sentences for people: what happened, where, what to do. */
  message: z.string(),
  /** Path of the value that was refused, where there is one. */
  field: z.string().optional(),
  /** On a conflict: what the edit does not fit any more. */
  clashes: z.array(clashSchema).optional(),
  /** On a conflict: the rows of it as the server has them now. */
  rows: z.array(kindRowSchema).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
