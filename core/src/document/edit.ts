import { z } from 'zod';
import {
  differingFacets,
  facetSchema,
  isDerived,
  isFacetOf,
  isFixed,
  readFacet,
  sameFacet,
  writeFacet,
  type Facet,
} from './facet.ts';
import { sameValues } from './json.ts';
import { finite, idSchema, nameSchema } from './primitives.ts';
import { DOCUMENT_VERSION, kindSchema, type Kind, type Row } from './row.ts';

/** Who did something. Undo and the list of who is here are per person. */
export const personSchema = z.strictObject({ id: idSchema, name: z.string().trim().min(1).max(80) });
export type Person = z.infer<typeof personSchema>;

const of = { kind: kindSchema, id: idSchema };
const makeSchema = z.strictObject({
  op: z.literal('make'),
  ...of,
  name: nameSchema,
  order: finite,
  body: z.record(z.string(), z.unknown()),
});
const setSchema = z.strictObject({
  op: z.literal('set'),
  ...of,
  facet: facetSchema,
  /** What the facet was when it was changed; absent where it was absent. */
  before: z.unknown().optional(),
  /** What it becomes; absent takes it away. */
  after: z.unknown().optional(),
});

/** A change of one row: it is made, removed, brought back, or one facet of it replaced. */
export const changeSchema = z.discriminatedUnion('op', [
  makeSchema,
  z.strictObject({ op: z.literal('remove'), ...of }),
  z.strictObject({ op: z.literal('restore'), ...of }),
  setSchema,
]);
export type Change = z.infer<typeof changeSchema>;
export type SetChange = Extract<Change, { op: 'set' }>;

/** Longest label, characters. */
export const LONGEST_LABEL = 200;
/** Changes in one edit at most: more than any gesture makes. */
const MOST_CHANGES = 5000;

/** One thing that somebody did: the unit of saving, undo, history and conflict. It is applied as a whole or not. */
export const editSchema = z.strictObject({
  id: idSchema,
  projectId: idSchema,
  label: z.string().trim().min(1).max(LONGEST_LABEL),
  by: personSchema,
  /** Written by a program: pictures, measures, finished takes. In nobody's undo. */
  machine: z.boolean().default(false),
  /** The document version that its values are written in. */
  version: z.int().min(1).max(1_000_000),
  changes: z.array(changeSchema).min(1).max(MOST_CHANGES),
  /** What a machine computed from: if any of it is otherwise by now, the edit is stale and not applied. */
  given: z
    .array(z.strictObject({ ...of, facet: facetSchema, value: z.unknown().optional() }))
    .max(100)
    .default([]),
});
export type Edit = z.infer<typeof editSchema>;

/** One reason why an edit cannot be applied as it is. */
export const clashSchema = z.object({
  ...of,
  facet: facetSchema.nullable(),
  /** changed: the facet is no longer `before`; deleted, missing: the row is; there: a row of this id exists. */
  reason: z.enum(['changed', 'deleted', 'missing', 'there']),
  /** Value of the facet now. */
  current: z.unknown().optional(),
  /** The edit that made it so, where the log knows. */
  since: z.object({ by: z.string(), label: z.string(), at: z.iso.datetime() }).nullable().default(null),
});
export type Clash = z.infer<typeof clashSchema>;

export type RowOf = (kind: Kind, id: string) => Row | undefined;

interface Applied {
  /** Rows that are other than before, each once, in the order of first touch. */
  rows: { kind: Kind; row: Row }[];
  clashes: Clash[];
}

/**
 * Applies an edit to rows: the one meaning of an edit, for page and server alike. Where there is a clash the rows
 * are what they would become if it were overruled.
 * @param rowOf a row as it is, deleted or not
 * @param now instant of the change, ISO 8601
 */
export function applyEdit(edit: Pick<Edit, 'projectId' | 'changes' | 'given'>, rowOf: RowOf, now: string): Applied {
  const touched = new Map<string, { kind: Kind; row: Row }>();
  const clashes: Clash[] = [];
  const current = (kind: Kind, id: string) => {
    const row = touched.get(id)?.row ?? rowOf(kind, id);
    return row?.projectId === edit.projectId ? row : undefined;
  };
  const put = (kind: Kind, row: Row) => touched.set(row.id, { kind, row: { ...row, updated: now } });
  const clash = (of: { kind: Kind; id: string }, reason: Clash['reason'], facet: Facet | null, value?: unknown) =>
    clashes.push({ kind: of.kind, id: of.id, facet, reason, current: value, since: null });

  for (const given of edit.given) {
    const row = current(given.kind, given.id);
    if (!row || row.deleted) clash(given, row ? 'deleted' : 'missing', given.facet);
    else if (!sameValues(readFacet(row, given.facet), given.value))
      clash(given, 'changed', given.facet, readFacet(row, given.facet));
  }
  for (const change of edit.changes) {
    const { kind, id } = change;
    if (change.op === 'make') {
      if (touched.get(id) ?? rowOf(kind, id)) clash(change, 'there', null);
      else put(kind, newRow(edit.projectId, change, now));
      continue;
    }
    const row = current(kind, id);
    if (!row) clash(change, 'missing', change.op === 'set' ? change.facet : null);
    else if (change.op === 'remove') {
      if (!row.deleted) put(kind, { ...row, deleted: now });
    } else if (change.op === 'restore') {
      if (row.deleted) put(kind, { ...row, deleted: null });
    } else {
      const value = readFacet(row, change.facet);
      if (row.deleted) clash(change, 'deleted', change.facet, value);
      if (sameValues(value, change.after)) continue;
      if (!row.deleted && !isDerived(kind, change.facet) && !sameValues(value, change.before))
        clash(change, 'changed', change.facet, value);
      put(kind, writeFacet(row, change.facet, change.after));
    }
  }
  return { rows: [...touched.values()], clashes };
}

function newRow(projectId: string, { kind, id, name, order, body }: z.infer<typeof makeSchema>, now: string): Row {
  return {
    id,
    projectId: kind === 'project' ? id : projectId,
    name,
    order,
    body: body as Row['body'],
    version: DOCUMENT_VERSION,
    revision: 0,
    created: now,
    updated: now,
    deleted: null,
  };
}

/** What takes changes back, in the opposite order. */
export function invertChanges(changes: readonly Change[]): Change[] {
  return changes
    .map((change): Change => {
      const { kind, id } = change;
      switch (change.op) {
        case 'make':
        case 'restore':
          return { op: 'remove', kind, id };
        case 'remove':
          return { op: 'restore', kind, id };
        case 'set':
          return { ...change, before: change.after, after: change.before };
      }
    })
    .reverse();
}

/** The changes that turn one version of a row into another. */
export function changesBetween(
  kind: Kind,
  before: Pick<Row, 'id' | 'name' | 'order' | 'body'>,
  after: Pick<Row, 'name' | 'order' | 'body'>,
): SetChange[] {
  return differingFacets(kind, before, after).map((facet) => ({
    op: 'set',
    kind,
    id: before.id,
    facet,
    before: readFacet(before, facet),
    after: readFacet(after, facet),
  }));
}

/** Do two changes speak of the same facet of the same row? */
export const sameTarget = (a: SetChange, b: SetChange): boolean => a.id === b.id && sameFacet(a.facet, b.facet);

/**
 * Many changes as few: of each facet the first `before` and the last `after`; what came back to where it was is no
 * change. So a gesture of a thousand steps is one edit.
 */
export function foldChanges(changes: readonly Change[]): Change[] {
  const folded: Change[] = [];
  for (const change of changes) {
    const at = change.op === 'set' ? folded.findLastIndex((one) => one.op === 'set' && sameTarget(one, change)) : -1;
    const known = folded[at] as SetChange | undefined;
    // A row that was removed or made in between is another one.
    const parted = folded.slice(at + 1).some((one) => one.id === change.id && one.op !== 'set');
    if (change.op === 'set' && known && !parted) folded[at] = { ...known, after: change.after };
    else folded.push(change);
  }
  return folded.filter((change) => change.op !== 'set' || !sameValues(change.before, change.after));
}

/**
 * Why an edit could never be applied, whatever the rows are; null where nothing speaks against it.
 * @returns the place in the edit, and words for people
 */
export function editFault({
  machine,
  changes,
}: Pick<Edit, 'machine' | 'changes'>): { field: string; message: string } | null {
  for (const [i, change] of changes.entries()) {
    const field = `changes.${i}`;
    if (change.op === 'set') {
      const { kind, facet } = change;
      const name = facet.join(' › ');
      if (!isFacetOf(kind, facet)) return { field, message: `“${name}” of a ${kind} cannot be changed by itself.` };
      if (isFixed(kind, facet)) return { field, message: `“${name}” of a ${kind} is given once and stays.` };
      if (machine && !isDerived(kind, facet))
        return { field, message: `“${name}” of a ${kind} belongs to people; a program does not write it.` };
    } else if (machine && !(change.op === 'make' && change.kind === 'take'))
      return { field, message: `A program does not ${change.op} a ${change.kind}.` };
  }
  return null;
}
