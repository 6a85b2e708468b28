import {
  DOCUMENT_VERSION,
  DocumentError,
  migrateBody,
  type Kind,
  type Row,
  type Unreadable,
} from '@eskovan/core/document';
import { ProblemException } from '../common/problem.ts';

/** A row as the database gives it. */
export interface StoredRow {
  id: string;
  projectId: string;
  name: string;
  order: number;
  body: unknown;
  version: number;
  revision: number;
  created: Date;
  updated: Date;
  deleted: Date | null;
}

/**
 * A row in the current version.
 * @throws ProblemException 409 for a row that a newer program has written, or that does not fit its schema
 */
export function toRow<K extends Kind>(kind: K, row: StoredRow): Row<K> {
  try {
    return migrated(kind, row);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw new ProblemException(409, { code: 'unreadable', message: error.message });
  }
}

/** Rows in the current version, and those that cannot be read: one of them never keeps the others away. */
export function readRows<K extends Kind>(
  kind: K,
  stored: readonly StoredRow[],
): { rows: Row<K>[]; unreadable: Unreadable[] } {
  const rows: Row<K>[] = [];
  const unreadable: Unreadable[] = [];
  for (const row of stored)
    try {
      rows.push(migrated(kind, row));
    } catch (error) {
      if (!(error instanceof DocumentError)) throw error;
      unreadable.push({ kind, id: row.id, name: row.name, reason: error.message });
    }
  return { rows, unreadable };
}

function migrated<K extends Kind>(kind: K, row: StoredRow): Row<K> {
  return {
    id: row.id,
    projectId: row.projectId,
    name: row.name,
    order: row.order,
    // What was written in this version was checked and completed when it was written.
    body: row.version === DOCUMENT_VERSION ? (row.body as Row<K>['body']) : migrateBody(kind, row.version, row.body),
    version: DOCUMENT_VERSION,
    revision: row.revision,
    created: row.created.toISOString(),
    updated: row.updated.toISOString(),
    deleted: row.deleted?.toISOString() ?? null,
  };
}
