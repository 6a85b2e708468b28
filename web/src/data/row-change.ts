import { DOCUMENT_VERSION, type BodyOf, type Kind, type ProjectDocument, type Row } from '@eskovan/core/document';

export interface RowValues<K extends Kind = Kind> {
  name?: string;
  order?: number;
  body?: BodyOf<K>;
}

/** One edit of one row: what the server is told and what undo records. */
export type RowChange =
  | { op: 'create'; kind: Kind; id: string; name: string; order: number; body: BodyOf<Kind> }
  | { op: 'change'; kind: Kind; id: string; values: RowValues }
  | { op: 'delete'; kind: Kind; id: string }
  | { op: 'restore'; kind: Kind; id: string; row: Row };

export function findRow(document: ProjectDocument, kind: Kind, id: string): Row | undefined {
  if (kind === 'project') return document.project;
  return (document[kind] as Row[]).find((row) => row.id === id);
}

/** Rows that are not deleted, in their order. */
export function liveRows<K extends Kind>(rows: readonly Row<K>[]): Row<K>[] {
  return rows
    .filter((row) => row.deleted === null)
    .sort((a, b) => a.order - b.order || a.created.localeCompare(b.created));
}

/** The document after a change; the one before stays as it was. */
export function applyChange(
  document: ProjectDocument,
  change: RowChange,
  now = new Date().toISOString(),
): ProjectDocument {
  const projectId = document.project.id;
  switch (change.op) {
    case 'create': {
      const { kind, id, name, order, body } = change;
      const row: Row = {
        id,
        projectId,
        name,
        order,
        body,
        version: DOCUMENT_VERSION,
        revision: 0,
        created: now,
        updated: now,
        deleted: null,
      };
      return put(document, kind, row);
    }
    case 'change':
      return edit(document, change.kind, change.id, (row) => ({ ...row, ...change.values, updated: now }));
    case 'delete':
      return edit(document, change.kind, change.id, (row) => ({ ...row, deleted: now }));
    case 'restore':
      return put(document, change.kind, { ...change.row, deleted: null });
  }
}

/** What takes a change back, given the document before it; null where there is nothing to take back. */
export function invertChange(document: ProjectDocument, change: RowChange): RowChange | null {
  const row = findRow(document, change.kind, change.id);
  switch (change.op) {
    case 'create':
      return { op: 'delete', kind: change.kind, id: change.id };
    case 'restore':
      return { op: 'delete', kind: change.kind, id: change.id };
    case 'delete':
      return row ? { op: 'restore', kind: change.kind, id: change.id, row } : null;
    case 'change': {
      if (!row) return null;
      const before = Object.fromEntries(Object.keys(change.values).map((key) => [key, row[key as keyof RowValues]]));
      return { op: 'change', kind: change.kind, id: change.id, values: before as RowValues };
    }
  }
}

/** Doing a creation again after it was undone brings the same row back. */
export function redoable(change: RowChange, document: ProjectDocument): RowChange {
  if (change.op !== 'create') return change;
  const row = findRow(document, change.kind, change.id);
  return row ? { op: 'restore', kind: change.kind, id: change.id, row } : change;
}

/** Replaces or adds a whole row, as the server has it. */
export function putRow(document: ProjectDocument, kind: Kind, row: Row): ProjectDocument {
  return put(document, kind, row);
}

function put(document: ProjectDocument, kind: Kind, row: Row): ProjectDocument {
  if (kind === 'project') return { ...document, project: row as Row<'project'> };
  const list = document[kind] as Row[];
  const known = list.some((other) => other.id === row.id);
  const next = known ? list.map((other) => (other.id === row.id ? row : other)) : [...list, row];
  return { ...document, [kind]: next };
}

function edit(document: ProjectDocument, kind: Kind, id: string, change: (row: Row) => Row): ProjectDocument {
  const row = findRow(document, kind, id);
  return row ? put(document, kind, change(row)) : document;
}
