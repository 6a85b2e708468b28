import { z } from 'zod';

/** Every refusal of the server has this shape. */
export const problemSchema = z.object({
  /** Stable and short, for programs. */
  code: z.string(),
  /** One or two sentences for people: what happened, where, what to do. */
  message: z.string(),
  /** Path of the value that was refused, where there is one. */
  field: z.string().optional(),
  /** On a conflict: the row as the server has it now. */
  current: z.unknown().optional(),
});
export type Problem = z.infer<typeof problemSchema>;
