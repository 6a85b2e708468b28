import { z } from 'zod';
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

export interface ProjectDocument {
  project: Row<'project'>;
  model: Row<'model'>[];
  move: Row<'move'>[];
  view: Row<'view'>[];
  take: Row<'take'>[];
  link: Row<'link'>[];
}

export const projectDocumentSchema = z.object({
  project: rowSchema('project'),
  model: z.array(rowSchema('model')),
  move: z.array(rowSchema('move')),
  view: z.array(rowSchema('view')),
  take: z.array(rowSchema('take')),
  link: z.array(rowSchema('link')),
});

/** A card on the Projects screen. */
export const projectCardSchema = z.object({
  project: rowSchema('project'),
  /** SHA-256 of a picture from the project. */
  cover: z.string().nullable(),
  counts: z.object({ model: z.int(), move: z.int(), view: z.int(), take: z.int(), link: z.int() }),
});
export type ProjectCard = z.infer<typeof projectCardSchema>;
