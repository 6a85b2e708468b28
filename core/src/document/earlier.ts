import { z } from 'zod';
import { facetSchema, writeFacet } from './facet.ts';
import { logEntrySchema } from './live.ts';
import type { Kind, Row } from './row.ts';

/** An edit of a row, and what some of its facets were before it. */
export const beforeEntrySchema = logEntrySchema.extend({
  /** A value that is absent was none. */
  before: z.array(z.object({ facet: facetSchema, value: z.unknown().optional() })),
});
export type BeforeEntry = z.infer<typeof beforeEntrySchema>;

/** A row as it was until an edit. */
export interface Earlier<K extends Kind> {
  row: Row<K>;
  /** The edit that made it something else. */
  until: Pick<BeforeEntry, 'seq' | 'label' | 'by' | 'at'>;
}

/** What one person does within this time with the same words is one step back, milliseconds. */
const ONE_STEP = 60_000;

/**
 * What a row was before each of the edits of it, the newest first.
 * @param entries newest first
 */
export function earlierRows<K extends Kind>(row: Row<K>, entries: readonly BeforeEntry[]): Earlier<K>[] {
  const earlier: Earlier<K>[] = [];
  let now = row;
  let last: BeforeEntry | null = null;
  for (const entry of entries) {
    for (const { facet, value } of entry.before) now = writeFacet(now, facet, value);
    const { seq, label, by, at } = entry;
    const goesOn =
      last && last.by.id === by.id && last.label === label && Date.parse(last.at) - Date.parse(at) < ONE_STEP;
    if (goesOn) earlier[earlier.length - 1]!.row = now;
    else earlier.push({ row: now, until: { seq, label, by, at } });
    last = entry;
  }
  return earlier;
}
