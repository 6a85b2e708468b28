import { z } from 'zod';
import { actionBodySchema } from './action.ts';
import { linkBodySchema } from './link.ts';
import { modelBodySchema } from './model.ts';
import { moveBodySchema } from './move.ts';
import { finite, idSchema, nameSchema } from './primitives.ts';
import { projectBodySchema } from './project.ts';
import { takeBodySchema } from './take.ts';
import { viewBodySchema } from './view.ts';

/** Everything that is saved, by kind: the one list that the database, the API and the page share. */
export const bodySchemas = {
  project: projectBodySchema,
  model: modelBodySchema,
  action: actionBodySchema,
  move: moveBodySchema,
  view: viewBodySchema,
  take: takeBodySchema,
  link: linkBodySchema,
} as const;

export type Kind = keyof typeof bodySchemas;
export const KINDS = Object.keys(bodySchemas) as Kind[];
export const kindSchema = z.enum(KINDS as [Kind, ...Kind[]]);
export type BodyOf<K extends Kind> = z.infer<(typeof bodySchemas)[K]>;

/** The version that bodies are written in; older ones are migrated on the way out. */
export const DOCUMENT_VERSION = 2;

const envelope = {
  id: idSchema,
  /** The project the row belongs to; a project belongs to itself. */
  projectId: idSchema,
  name: nameSchema,
  /** Position in its list; any number between two neighbours puts it between them. */
  order: finite,
  version: z.int().min(1),
  /** Counts the writes; a write must name the one it was based on. */
  revision: z.int().min(1),
  created: z.iso.datetime(),
  updated: z.iso.datetime(),
  deleted: z.iso.datetime().nullable(),
};

export function rowSchema<K extends Kind>(kind: K) {
  return z.object({ ...envelope, body: bodySchemas[kind] });
}

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

/** PUT: makes the row. Repeating it is harmless. */
export function createRequestSchema<K extends Kind>(kind: K) {
  return z.strictObject({ name: nameSchema, order: finite.default(0), body: bodySchemas[kind] });
}

/** PATCH: replaces what is named; `revision` is the one the change was based on. */
export function changeRequestSchema<K extends Kind>(kind: K) {
  return z.strictObject({
    revision: z.int().min(1),
    name: nameSchema.optional(),
    order: finite.optional(),
    body: bodySchemas[kind].optional(),
  });
}

export const revisionRequestSchema = z.strictObject({ revision: z.int().min(1) });

/** Kinds of rows that a project has lists of. */
export type ChildKind = Exclude<Kind, 'project'>;
export const CHILD_KINDS = KINDS.filter((kind): kind is ChildKind => kind !== 'project');

/** Something for each kind of row that a project has lists of. */
const forChildren = <T>(make: (kind: ChildKind) => T) =>
  Object.fromEntries(CHILD_KINDS.map((kind) => [kind, make(kind)])) as Record<ChildKind, T>;

/** Everything of one project. */
export type ProjectDocument = { project: Row<'project'> } & { [K in ChildKind]: Row<K>[] };

export const projectDocumentSchema = z.object({
  project: rowSchema('project'),
  ...forChildren((kind) => z.array(rowSchema(kind))),
});

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
