import { z } from 'zod';
import { personSchema } from './edit.ts';
import { idSchema } from './primitives.ts';
import { kindRowSchema, kindSchema } from './row.ts';

/** An edit as the log keeps it, without its values. */
export const logEntrySchema = z.object({
  seq: z.int(),
  id: idSchema,
  projectId: idSchema,
  label: z.string(),
  by: personSchema,
  machine: z.boolean(),
  at: z.iso.datetime(),
  /** Rows it changed, and the revision it brought each to. */
  touched: z.array(z.object({ kind: kindSchema, id: idSchema, revision: z.int() })),
});
export type LogEntry = z.infer<typeof logEntrySchema>;

/** What an applied edit is answered with: the rows it changed, as they are now. */
export const editReplySchema = z.object({ seq: z.int(), rows: z.array(kindRowSchema) });
export type EditReply = z.infer<typeof editReplySchema>;

/** What has changed in a project since an edit. */
export const catchUpSchema = z.object({
  seq: z.int(),
  /** Too much has changed to be told row by row: the document is to be read anew. */
  whole: z.boolean(),
  rows: z.array(kindRowSchema),
  edits: z.array(logEntrySchema),
});
export type CatchUp = z.infer<typeof catchUpSchema>;

/** A page that is open somewhere. */
export const presenceSchema = z.strictObject({
  /** The browser tab. */
  tab: idSchema,
  person: personSchema,
  /** null where no project is open; a page that closes says so too. */
  projectId: idSchema.nullable(),
  stage: z.string().max(40).default(''),
  /** The row that it is about just now. */
  row: idSchema.nullable().default(null),
  /** Grows with each thing that a tab says of itself: what is said twice in a moment may arrive in either order. */
  turn: z.int().min(0).default(0),
});
export type Presence = z.infer<typeof presenceSchema>;

/** What the stream of a browser carries. `hello` tells where it begins: whoever knows less catches up. */
export const liveEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('hello'), seq: z.int() }),
  z.object({ kind: z.literal('edit'), entry: logEntrySchema }),
  z.object({ kind: z.literal('here'), here: z.array(presenceSchema) }),
]);
export type LiveEvent = z.infer<typeof liveEventSchema>;
