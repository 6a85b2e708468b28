import { describe, expect, test } from '@jest/globals';
import type { Row } from '@eskovan/core/document';
import { exampleDocument, exampleRow, exampleView } from '../testing/studio.tsx';
import { learnChanges, learnDocument, learnRows } from './truth.ts';

const view = (id: number, name: string, revision: number, deleted: string | null = null): Row<'view'> => ({
  ...exampleRow(id, name, exampleView()),
  revision,
  deleted,
});
const documentOf = (seq: number, ...views: Row<'view'>[]) => ({ ...exampleDocument({ view: views }), seq });
const names = (rows: readonly Row[]) => rows.map(({ name, deleted }) => (deleted ? `(${name})` : name)).sort();

describe('what the page knows of the server', () => {
  test('of two versions of a row the newer revision stays, in whatever order they come', () => {
    let truth = learnDocument(null, documentOf(5, view(1, 'A', 3)));
    truth = learnRows(truth, [{ kind: 'view', row: view(1, 'old', 2) }], 6);
    expect(names(truth.document.view)).toEqual(['A']);
    truth = learnRows(truth, [{ kind: 'view', row: view(1, 'new', 4) }], 7);
    expect(names(learnDocument(truth, documentOf(6, view(1, 'A', 3))).document.view)).toEqual(['new']);
  });

  test('a row that a fetched document does not have stays where it was made later, and goes where it was not', () => {
    const truth = learnRows(
      learnDocument(null, documentOf(5, view(1, 'A', 1), view(2, 'gone', 1))),
      [{ kind: 'view', row: view(3, 'made', 1) }],
      7,
    );
    expect(names(learnDocument(truth, documentOf(6, view(1, 'A', 1))).document.view)).toEqual(['A', 'made']);
    expect(names(learnDocument(truth, documentOf(8, view(1, 'A', 1))).document.view)).toEqual(['A']);
  });

  test('deleted rows stay known, for undo; catching up never goes back', () => {
    let truth = learnChanges(learnDocument(null, documentOf(5, view(1, 'A', 1))), {
      seq: 9,
      rows: [{ kind: 'view', row: view(1, 'A', 2, '2026-01-02T00:00:00.000Z') }],
    });
    truth = learnDocument(truth, documentOf(9));
    expect(names(truth.document.view)).toEqual(['(A)']);
    truth = learnChanges(truth, { seq: 4, rows: [] });
    expect(truth.document.seq).toBe(9);
  });
});
