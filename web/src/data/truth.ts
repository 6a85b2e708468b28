import { allRows, type CatchUp, type KindRow, type ProjectDocument } from '@eskovan/core/document';
import { findRow, putRow } from './changes.ts';

/** A project as the server has it, as far as this page knows. */
export interface Truth {
  document: ProjectDocument;
  /** By row: number of the edit with which this page learned of it. */
  learned: ReadonlyMap<string, number>;
}

/** Takes rows in, each unless a newer revision of it is known. */
export function learnRows(truth: Truth, rows: readonly KindRow[], seq: number): Truth {
  let { document } = truth;
  const learned = new Map(truth.learned);
  for (const { kind, row } of rows) {
    const known = findRow(document, kind, row.id);
    if (known && known.revision >= row.revision) continue;
    document = putRow(document, kind, row);
    learned.set(row.id, seq);
  }
  return document === truth.document ? truth : { document, learned };
}

/**
 * Takes a fetched document in. What this page has learned by later edits stays: an answer may have been overtaken.
 * Deleted rows stay known too: an undo may bring them back.
 */
export function learnDocument(before: Truth | null, fetched: ProjectDocument): Truth {
  if (!before) return { document: fetched, learned: new Map() };
  const learned = new Map<string, number>();
  let document = fetched;
  const kindOf = kindsOf(before.document);
  for (const row of allRows(before.document)) {
    const kind = kindOf.get(row.id)!;
    const now = findRow(fetched, kind, row.id);
    const since = before.learned.get(row.id) ?? 0;
    if (now ? row.revision > now.revision : since > fetched.seq || row.deleted !== null) {
      document = putRow(document, kind, row);
      learned.set(row.id, since);
    }
  }
  return { document: { ...document, seq: Math.max(fetched.seq, before.document.seq) }, learned };
}

/** Takes in what has changed since an edit. */
export function learnChanges(truth: Truth, { rows, seq }: Pick<CatchUp, 'rows' | 'seq'>): Truth {
  const next = learnRows(truth, rows, seq);
  return seq <= next.document.seq ? next : { ...next, document: { ...next.document, seq } };
}

function kindsOf(document: ProjectDocument) {
  const kinds = new Map([[document.project.id, 'project' as const as KindRow['kind']]]);
  for (const [kind, list] of Object.entries(document))
    if (Array.isArray(list) && kind !== 'unreadable')
      for (const { id } of list as { id: string }[]) kinds.set(id, kind as KindRow['kind']);
  return kinds;
}
