import { applyEdit, type Change, type Row } from '@eskovan/core/document';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { liveRows } from '../../data/changes.ts';
import { exampleRow, exampleView, PROJECT } from '../../testing/studio.tsx';
import { entriesOf, groupBetween, grouping, movedTo, newGroupName, type GroupsOf } from './shelf-groups.ts';

const GROUPS: GroupsOf<'view'> = {
  of: ({ body }) => body.group,
  with: ({ group: _, ...body }, group) => (group === undefined ? body : { ...body, group }),
};

/** A list by letters: capitals stand in the group of their letter. */
const listOf = (letters: string): Row<'view'>[] =>
  [...letters].map((letter, i) => {
    const row = exampleRow(10 + i, `${i}`, exampleView()) as Row<'view'>;
    return { ...row, order: i + 1, body: GROUPS.with(exampleView(), letter === '.' ? undefined : letter) };
  });
const letters = (rows: readonly Row<'view'>[]) => rows.map((row) => GROUPS.of(row) ?? '.').join('');
const after = (rows: readonly Row<'view'>[], changes: Change[]): Row<'view'>[] => {
  const { rows: changed } = applyEdit(
    { projectId: PROJECT, changes, given: [] },
    (_, id) => rows.find((row) => row.id === id),
    new Date().toISOString(),
  );
  return liveRows(rows.map((row) => (changed.find((one) => one.row.id === row.id)?.row as Row<'view'>) ?? row));
};
const group = (rows: Row<'view'>[], at: readonly number[], name: string | undefined) =>
  after(
    rows,
    grouping(
      'view',
      rows,
      at.map((i) => rows[i]!.id),
      name,
      GROUPS,
    ),
  );

describe('groups of a shelf', () => {
  test('have a heading over those that stand together, and put them away', () => {
    const rows = listOf('.AAB.');
    const lines = (folded: string) =>
      entriesOf(rows, rows, GROUPS.of, (name) => name === folded).map((entry) =>
        entry.heading === null ? entry.index : entry.heading,
      );
    expect(lines('')).toEqual([0, 'A', 1, 2, 'B', 3, 4]);
    expect(lines('A')).toEqual([0, 'A', 'B', 3, 4]);
  });

  test.each([
    // own, before, after → it is in
    [undefined, 'A', 'A', 'A'],
    ['B', 'A', 'A', 'A'],
    ['A', 'A', undefined, 'A'],
    ['A', undefined, 'A', 'A'],
    ['A', undefined, undefined, undefined],
    ['A', 'B', 'C', undefined],
    [undefined, 'A', undefined, undefined],
  ])('one of %s between %s and %s is in %s', (own, before, next, expected) => {
    expect(groupBetween(own, before, next)).toBe(expected);
  });

  test('a row that is moved comes into a group, and goes on out of it at its other end', () => {
    let rows = listOf('.AA.');
    const seen = [];
    for (let at = 0; at < 3; at += 1) {
      const moved = movedTo(rows, at, at + 1, GROUPS);
      rows = rows.map((row) => (row.id === moved.id ? moved : row)).sort((a, b) => a.order - b.order);
      seen.push([rows.map(({ name }) => name).join(''), letters(rows)]);
    }
    expect(seen).toEqual([
      ['1023', 'AAA.'],
      ['1203', 'AAA.'],
      ['1230', 'AA..'],
    ]);
  });

  test('rows are put behind those that are in it, or where the first of them stands', () => {
    const rows = listOf('A..A.');
    expect(group(listOf('.AA..'), [0, 4], 'A').map(({ name }) => name)).toEqual(['1', '2', '0', '4', '3']);
    expect(group(rows, [2, 4], 'B').map(({ name }) => name)).toEqual(['0', '1', '2', '4', '3']);
    expect(letters(group(rows, [2, 4], 'B'))).toBe('A.BBA');
  });

  test('those that leave a group go behind the rest of it', () => {
    const left = group(listOf('.AAA.'), [1, 2], undefined);
    expect(left.map(({ name }) => name)).toEqual(['0', '3', '1', '2', '4']);
    expect(letters(left)).toBe('.A...');
    expect(letters(group(listOf('.AA.'), [1, 2], undefined))).toBe('....');
  });

  test('whatever is put where: all stay, and each group that stood together still does', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.subarray([0, 1, 2, 3, 4, 5, 6]), fc.constantFrom('A', 'B', undefined)), { maxLength: 8 }),
        (deeds) => {
          let rows = listOf('.......');
          for (const [at, name] of deeds) {
            rows = group(rows, at, name);
            expect(new Set(rows.map(({ name: own }) => own)).size).toBe(7);
            for (const one of ['A', 'B'])
              expect(letters(rows).replaceAll(/[^AB]/g, '.')).not.toMatch(`${one}[^${one}]+${one}`);
          }
        },
      ),
    );
  });

  test('are named by the first number that is free', () => {
    expect(newGroupName([])).toBe('Group 1');
    expect(newGroupName(['Group 2', undefined, 'Group 1'])).toBe('Group 3');
  });
});
