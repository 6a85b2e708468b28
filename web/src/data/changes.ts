import {
  applyEdit,
  changesBetween,
  type BodyOf,
  type Change,
  type Kind,
  type ProjectDocument,
  type Row,
} from '@eskovan/core/document';

export function findRow(document: ProjectDocument, kind: Kind, id: string): Row | undefined {
  if (kind === 'project') return document.project.id === id ? document.project : undefined;
  return (document[kind] as Row[]).find((row) => row.id === id);
}

/** Rows that are not deleted, in their order. */
export function liveRows<K extends Kind>(rows: readonly Row<K>[]): Row<K>[] {
  return rows
    .filter((row) => row.deleted === null)
    .sort((a, b) => a.order - b.order || a.created.localeCompare(b.created));
}

/** Replaces or adds a row. */
export function putRow(document: ProjectDocument, kind: Kind, row: Row): ProjectDocument {
  if (kind === 'project') return { ...document, project: row as Row<'project'> };
  const list = document[kind] as Row[];
  const at = list.findIndex((other) => other.id === row.id);
  return { ...document, [kind]: at < 0 ? [...list, row] : list.map((other, i) => (i === at ? row : other)) };
}

/** The document after changes, whoever else has changed it; the one before stays as it was. */
export function applyChanges(document: ProjectDocument, changes: readonly Change[], now: string): ProjectDocument {
  const edit = { projectId: document.project.id, changes: [...changes], given: [] };
  return applyEdit(edit, (kind, id) => findRow(document, kind, id), now).rows.reduce(
    (next, { kind, row }) => putRow(next, kind, row),
    document,
  );
}

export const making = <K extends Kind>(
  kind: K,
  row: { id: string; name: string; order: number; body: BodyOf<K> },
): Change => ({ op: 'make', kind, ...row, name: row.name.trim().slice(0, 120) || kind });

export const removing = (kind: Kind, id: string): Change => ({ op: 'remove', kind, id });

/** The changes that give a row other values; none where they are the same. */
export const changing = <K extends Kind>(
  kind: K,
  row: Row<K>,
  values: { name?: string; order?: number; body?: BodyOf<K> },
): Change[] => changesBetween(kind, row, { ...row, ...values });
