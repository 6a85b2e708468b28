import type { ProjectDocument, Row } from '@eskovan/core/document';
import { describe, expect, test } from '@jest/globals';
import { orderAfter, orderBetween } from './order.ts';
import { applyChange, invertChange, liveRows, redoable, type RowChange } from './row-change.ts';
import { sameValues } from './same-values.ts';

const row = (id: string, order = 1): Row<'view'> => ({
  id,
  projectId: 'p',
  name: id,
  order,
  body: { marker: id } as never,
  version: 1,
  revision: 1,
  created: '2026',
  updated: '2026',
  deleted: null,
});
const document: ProjectDocument = {
  project: { ...row('p'), body: {} as never } as never,
  model: [],
  action: [],
  move: [],
  view: [row('a', 1), row('b', 2)],
  take: [],
  link: [],
};

const CHANGES: RowChange[] = [
  { op: 'create', kind: 'view', id: 'c', name: 'c', order: 3, body: { marker: 'c' } as never },
  { op: 'change', kind: 'view', id: 'a', values: { name: 'renamed', order: 9 } },
  { op: 'delete', kind: 'view', id: 'b' },
  { op: 'change', kind: 'project', id: 'p', values: { name: 'Project' } },
];
const visible = (d: ProjectDocument) => ({
  project: d.project.name,
  views: liveRows(d.view).map(({ id, name, order, body }) => ({ id, name, order, body })),
});

describe('row changes', () => {
  test.each(CHANGES)('$op of a $kind is taken back by its inverse, and done again', (change) => {
    const after = applyChange(document, change);
    expect(visible(after)).not.toEqual(visible(document));
    const back = applyChange(after, invertChange(document, change)!);
    expect(visible(back)).toEqual(visible(document));
    expect(visible(applyChange(back, redoable(change, back)))).toEqual(visible(after));
  });

  test('the document before stays as it was', () => {
    const frozen = JSON.parse(JSON.stringify(document)) as ProjectDocument;
    for (const change of CHANGES) applyChange(document, change);
    expect(document).toEqual(frozen);
  });

  test('there is nothing to take back of a row that is not there', () => {
    expect(invertChange(document, { op: 'delete', kind: 'view', id: 'nobody' })).toBeNull();
    expect(applyChange(document, { op: 'delete', kind: 'view', id: 'nobody' })).toBe(document);
  });
});

describe('order', () => {
  const rows = [1, 2, 3, 4].map((order) => ({ order }));
  test.each([
    [0, 3, 5],
    [3, 0, 0],
    [0, 1, 2.5],
    [2, 1, 1.5],
  ])('moving %i to %i', (from, to, expected) => expect(orderBetween(rows, from, to)).toBe(expected));
  test('a new row comes last', () => {
    expect(orderAfter(rows)).toBe(5);
    expect(orderAfter([])).toBe(1);
  });
});

test('values are compared by what they hold', () => {
  expect(sameValues({ a: [1, { b: null }], c: 2 }, { c: 2, a: [1, { b: null }] })).toBe(true);
  expect(sameValues({ a: [1] }, { a: [2] })).toBe(false);
  expect(sameValues([1], { 0: 1 })).toBe(false);
  expect(sameValues(null, {})).toBe(false);
});
