import { z } from 'zod';
import { actionBodySchema } from './action.ts';
import { lightBodySchema } from './light.ts';
import { linkBodySchema } from './link.ts';
import { modelBodySchema } from './model.ts';
import { moveBodySchema } from './move.ts';
import { withUnknown } from './json.ts';
import { finite, idSchema, nameSchema } from './primitives.ts';
import { projectBodySchema } from './project.ts';
import { reelBodySchema, shotBodySchema } from './reel.ts';
import { takeBodySchema } from './take.ts';
import { viewBodySchema } from './view.ts';

/** Everything that is saved, by kind: the one list that the database, the API and the page share. */
export const bodySchemas = {
  project: projectBodySchema,
  model: modelBodySchema,
  action: actionBodySchema,
  light: lightBodySchema,
  move: moveBodySchema,
  view: viewBodySchema,
  reel: reelBodySchema,
  shot: shotBodySchema,
  take: takeBodySchema,
  link: linkBodySchema,
} as const;

export type Kind = keyof typeof bodySchemas;
export const KINDS = Object.keys(bodySchemas) as Kind[];
export const kindSchema = z.enum(KINDS as [Kind, ...Kind[]]);
export type BodyOf<K extends Kind> = z.infer<(typeof bodySchemas)[K]>;

/** The version that bodies are written in; older ones are migrated on the way out. */
export const DOCUMENT_VERSION = 22;

const envelope = {
  id: idSchema,
  /** The project the row belongs to; a project belongs to itself. */
  projectId: idSchema,
  name: nameSchema,
  /** Position in its list; any number between two neighbours puts it between them. */
  order: finite,
  version: z.int().min(1),
  /** Counts the edits of the row: of two versions the one with the higher number is newer. */
  revision: z.int().min(1),
  created: z.iso.datetime(),
  updated: z.iso.datetime(),
  deleted: z.iso.datetime().nullable(),
};

/** A row as the API describes it. */
export function rowSchema<K extends Kind>(kind: K) {
  return z.object({ ...envelope, body: bodySchemas[kind] });
}

/** Checks a value and keeps the members that the schema does not know: a page older than the data strips nothing. */
const keeping = <S extends z.ZodType>(schema: S) =>
  z.unknown().transform((raw, context): z.output<S> => {
    const parsed = schema.safeParse(raw);
    if (parsed.success) return withUnknown(raw, parsed.data);
    for (const issue of parsed.error.issues) context.issues.push({ ...issue, input: raw } as never);
    return z.NEVER;
  });

/** Reads a row that was received. */
export const rowReader = <K extends Kind>(kind: K) =>
  z.object({ ...envelope, body: keeping(bodySchemas[kind]) }) as unknown as z.ZodType<Row<K>>;

const READERS = Object.fromEntries(KINDS.map((kind) => [kind, rowReader(kind)])) as { [K in Kind]: z.ZodType<Row<K>> };

/** A row with its kind: what edits answer with and what is caught up with. */
export const kindRowSchema = z
  .object({ kind: kindSchema, row: z.unknown() })
  .transform(({ kind, row }, context): { kind: Kind; row: Row } => {
    const parsed = READERS[kind].safeParse(row);
    if (parsed.success) return { kind, row: parsed.data as Row };
    for (const issue of parsed.error.issues) context.issues.push({ ...issue, input: row } as never);
    return z.NEVER;
  });
export type KindRow = z.infer<typeof kindRowSchema>;

export interface Row<K extends Kind = Kind> {
  id: string;
  projectId: string;
  name: string;
  order: number;
  body: BodyOf<K>;
  version: number;
  revision: number;
  created: string;
  updated: string;
  deleted: string | null;
}

/** Kinds of rows that a project has lists of. */
export type ChildKind = Exclude<Kind, 'project'>;
export const CHILD_KINDS = KINDS.filter((kind): kind is ChildKind => kind !== 'project');

/** Something for each kind of row that a project has lists of. */
const forChildren = <T>(make: (kind: ChildKind) => T) =>
  Object.fromEntries(CHILD_KINDS.map((kind) => [kind, make(kind)])) as Record<ChildKind, T>;

/** A row that this program cannot read: left out, never overwritten. */
export const unreadableSchema = z.object({ kind: kindSchema, id: idSchema, name: z.string(), reason: z.string() });
export type Unreadable = z.infer<typeof unreadableSchema>;

const around = {
  /** Number of the newest edit that is in it. */
  seq: z.int().min(0),
  /** Rows that could not be read: left out of the lists. */
  unreadable: z.array(unreadableSchema),
};

/** Everything of one project. */
export type ProjectDocument = { project: Row<'project'>; seq: number; unreadable: Unreadable[] } & {
  [K in ChildKind]: Row<K>[];
};

/** A document as the API describes it. */
export const projectDocumentSchema = z.object({
  ...around,
  project: rowSchema('project'),
  ...forChildren((kind) => z.array(rowSchema(kind))),
});

/** Reads a document that was received. */
export const projectDocumentReader = z.object({
  ...around,
  project: READERS.project,
  ...forChildren((kind) => z.array(READERS[kind])),
}) as unknown as z.ZodType<ProjectDocument>;

/** Every row of a project. */
export const allRows = (document: ProjectDocument): Row[] => [
  document.project,
  ...CHILD_KINDS.flatMap((kind): Row[] => document[kind]),
];

/** A card on the Projects screen. */
export const projectCardSchema = z.object({
  project: rowSchema('project'),
  /** SHA-256 of a picture from the project. */
  cover: z.string().nullable(),
  counts: z.object(forChildren(() => z.int())),
});
export type ProjectCard = z.infer<typeof projectCardSchema>;
