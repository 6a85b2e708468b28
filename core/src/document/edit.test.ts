import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyEdit,
  changesBetween,
  DOCUMENT_VERSION,
  differingFacets,
  editFault,
  foldChanges,
  invertChanges,
  isFacetOf,
  mendText,
  migrateBody,
  projectDocumentReader,
  readFacet,
  sameValues,
  unkeepableText,
  withUnknown,
  writeFacet,
  type Change,
  type Kind,
  type Row,
} from './index.ts';

const PROJECT = '00000000-0000-4000-8000-000000000001';
const NOW = '2026-01-01T00:00:00.000Z';
const rowOf = (id: string, body: object, change: Partial<Row> = {}): Row => ({
  id,
  projectId: PROJECT,
  name: id,
  order: 1,
  body: body as Row['body'],
  version: DOCUMENT_VERSION,
  revision: 1,
  created: NOW,
  updated: NOW,
  deleted: null,
  ...change,
});
const edit = (changes: Change[], given: Parameters<typeof applyEdit>[0]['given'] = []) => ({
  projectId: PROJECT,
  changes,
  given,
});
const of = (rows: readonly Row[]) => (_: Kind, id: string) => rows.find((row) => row.id === id);
const set = (id: string, member: string, before: unknown, after: unknown, kind: Kind = 'move'): Change => ({
  op: 'set',
  kind,
  id,
  facet: ['body', member],
  before,
  after,
});

/** JSON values without numbers that JSON does not have. */
const json = fc.jsonValue({ maxDepth: 3 });
const body = fc.dictionary(fc.string({ minLength: 1, maxLength: 12 }), json, { maxKeys: 6 });

describe('facets', () => {
  test('a row differs from another in just those facets that are written to turn it into the other', () => {
    fc.assert(
      fc.property(body, body, fc.string(), (a, b, name) => {
        const [before, after] = [rowOf('a', a), { ...rowOf('a', b), name }];
        const changes = changesBetween('move', before, after);
        const { rows, clashes } = applyEdit(edit(changes), of([before]), NOW);
        expect(clashes).toEqual([]);
        const now = rows[0]?.row ?? before;
        expect(sameValues(now.body, b)).toBe(true);
        expect(now.name).toBe(name);
        expect(changes.length).toBe(differingFacets('move', before, after).length);
      }),
    );
  });

  test('entries of a collection are facets of their own: two people colour two parts', () => {
    const model = rowOf('m', { parts: { Wall: { hidden: true } }, hidden: false });
    const after = {
      ...model,
      body: { parts: { Wall: { clay: true }, Roof: { hidden: true } }, hidden: false } as never,
    };
    const changes = changesBetween('model', model, after);
    expect(changes.map(({ facet }) => facet)).toEqual([
      ['body', 'parts', 'Wall'],
      ['body', 'parts', 'Roof'],
    ]);
    expect(changes[1]).toMatchObject({ before: undefined, after: { hidden: true } });
    const gone = applyEdit(edit(invertChanges(changes)), of([after]), NOW);
    expect(gone.rows[0]!.row.body).toEqual(model.body);
  });

  test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])('“%s” is a name like others', (name) => {
    const row = rowOf('m', { parts: {} });
    expect(readFacet(row, ['body', 'parts', name])).toBeUndefined();
    const next = writeFacet(row, ['body', 'parts', name], { hidden: true });
    expect(readFacet(next, ['body', 'parts', name])).toEqual({ hidden: true });
    expect(Object.getPrototypeOf((next.body as unknown as { parts: object }).parts)).toBe(Object.prototype);
    expect(({} as { hidden?: boolean }).hidden).toBeUndefined();
  });

  test('a member is one facet, an entry only where there is a collection', () => {
    expect([isFacetOf('move', ['body', 'pace']), isFacetOf('move', ['body', 'pace', 'speed'])]).toEqual([true, false]);
    expect([isFacetOf('model', ['body', 'parts']), isFacetOf('model', ['body', 'parts', 'Wall'])]).toEqual([
      false,
      true,
    ]);
  });
});

describe('an edit', () => {
  test('undone by its inverse leaves the rows as they were', () => {
    fc.assert(
      fc.property(body, body, (a, b) => {
        const [before, after] = [rowOf('a', a), rowOf('a', b)];
        const changes: Change[] = [
          ...changesBetween('move', before, after),
          { op: 'make', kind: 'move', id: 'new', name: 'New', order: 0, body: b },
          { op: 'remove', kind: 'move', id: 'a' },
        ];
        const done = applyEdit(edit(changes), of([before]), NOW).rows.map(({ row }) => row);
        const undone = applyEdit(edit(invertChanges(changes)), of(done), NOW);
        expect(undone.clashes).toEqual([]);
        const [first, made] = ['a', 'new'].map((id) => undone.rows.find(({ row }) => row.id === id)!.row);
        expect(sameValues(first!.body, a)).toBe(true);
        expect([first!.deleted, made!.deleted]).toEqual([null, NOW]);
      }),
    );
  });

  test('clashes where a facet is no longer what it was, and nowhere else', () => {
    const row = rowOf('a', { pace: 1, gaze: 2 });
    expect(applyEdit(edit([set('a', 'pace', 1, 3), set('a', 'gaze', 9, 4)]), of([row]), NOW).clashes).toEqual([
      { kind: 'move', id: 'a', facet: ['body', 'gaze'], reason: 'changed', current: 2, since: null },
    ]);
    // What is there already is no clash, whatever was before.
    expect(applyEdit(edit([set('a', 'gaze', 9, 2)]), of([row]), NOW)).toEqual({ rows: [], clashes: [] });
  });

  test('changes one facet in several steps, one on the other', () => {
    const { rows, clashes } = applyEdit(
      edit([set('a', 'pace', 1, 2), set('a', 'pace', 2, 3)]),
      of([rowOf('a', { pace: 1 })]),
      NOW,
    );
    expect([rows[0]!.row.body, clashes]).toEqual([{ pace: 3 }, []]);
  });

  test('of a row that is deleted, missing or of another project says so', () => {
    const rows = [rowOf('gone', { pace: 1 }, { deleted: NOW }), rowOf('far', { pace: 1 }, { projectId: 'other' })];
    const reasons = (id: string) =>
      applyEdit(edit([set(id, 'pace', 1, 2)]), of(rows), NOW).clashes.map(({ reason }) => reason);
    expect([reasons('gone'), reasons('far'), reasons('nowhere')]).toEqual([['deleted'], ['missing'], ['missing']]);
    const restored = applyEdit(
      edit([{ op: 'restore', kind: 'move', id: 'gone' }, set('gone', 'pace', 1, 2)]),
      of(rows),
      NOW,
    );
    expect(restored.clashes).toEqual([]);
    const twice: Change = { op: 'make', kind: 'move', id: 'far', name: 'x', order: 0, body: {} };
    expect(applyEdit(edit([twice]), of(rows), NOW).clashes[0]!.reason).toBe('there');
  });

  test('a derived facet never clashes; what it was computed from must still be so', () => {
    const view = rowOf('v', { lens: 24, thumbnail: 'old' });
    const picture = set('v', 'thumbnail', 'something else', 'new', 'view');
    expect(applyEdit(edit([picture]), of([view]), NOW).rows[0]!.row.body).toEqual({ lens: 24, thumbnail: 'new' });
    const given = (value: number) => [
      { kind: 'view' as const, id: 'v', facet: ['body', 'lens'] as ['body', string], value },
    ];
    expect(applyEdit(edit([picture], given(24)), of([view]), NOW).clashes).toEqual([]);
    expect(applyEdit(edit([picture], given(35)), of([view]), NOW).clashes).toMatchObject([
      { reason: 'changed', current: 24 },
    ]);
  });

  test('that could never be applied is told by its place', () => {
    const fault = (changes: Change[], machine = false) => editFault({ machine, changes });
    expect(fault([set('t', 'number', 1, 2, 'take')])).toMatchObject({ field: 'changes.0' });
    expect(fault([set('l', 'token', 'a', 'b', 'link')])!.message).toMatch(/given once/);
    expect(fault([set('v', 'lens', 1, 2, 'view')], true)!.message).toMatch(/belongs to people/);
    expect(fault([set('v', 'thumbnail', 1, 2, 'view')], true)).toBeNull();
    expect(fault([{ op: 'remove', kind: 'view', id: 'v' }], true)!.message).toMatch(/does not remove/);
    expect(fault([{ op: 'make', kind: 'take', id: 't', name: 't', order: 0, body: {} }], true)).toBeNull();
  });
});

describe('folding', () => {
  test('a gesture of many steps is the first before and the last after', () => {
    const steps = Array.from({ length: 300 }, (_, n) => set('a', 'pace', n, n + 1));
    expect(foldChanges(steps)).toEqual([set('a', 'pace', 0, 300)]);
    expect(foldChanges([set('a', 'pace', 1, 2), set('a', 'pace', 2, 1)])).toEqual([]);
  });

  test('does what the steps did, whatever they were', () => {
    const member = fc.constantFrom('pace', 'gaze', 'lens');
    fc.assert(
      fc.property(fc.array(fc.tuple(member, fc.nat(5), fc.boolean()), { maxLength: 25 }), (steps) => {
        const start = rowOf('a', { pace: 0, gaze: 0, lens: 0 });
        let row = start;
        const changes: Change[] = [];
        for (const [name, value, remove] of steps) {
          const next: Change[] = remove
            ? [
                { op: 'remove', kind: 'move', id: 'a' },
                { op: 'restore', kind: 'move', id: 'a' },
              ]
            : [set('a', name, (row.body as unknown as Record<string, number>)[name], value)];
          changes.push(...next);
          row = applyEdit(edit(next), of([row]), NOW).rows[0]?.row ?? row;
        }
        const folded = applyEdit(edit(foldChanges(changes)), of([start]), NOW);
        expect(folded.clashes).toEqual([]);
        expect((folded.rows[0]?.row ?? start).body).toEqual(row.body);
      }),
    );
  });
});

describe('members that this program does not know', () => {
  test('are kept at every depth, while defaults are filled in', () => {
    const raw = { a: 1, later: true, list: [{ x: 1, note: 'kept' }], gone: [1, 2] };
    const parsed = { a: 1, added: 0, list: [{ x: 1, kind: 'smooth' }], gone: [1] };
    expect(withUnknown(raw, parsed)).toEqual({
      a: 1,
      added: 0,
      list: [{ x: 1, kind: 'smooth', note: 'kept' }],
      gone: [1],
      later: true,
    });
  });

  test('pass through a body that is migrated, and a document that is read', () => {
    const pose = { position: [0, 1, 2], orientation: [0, 0, 0, 1], mood: 'calm' };
    const lens = { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 } };
    const read = migrateBody('view', 2, { pose, lens, weather: 'fog' });
    expect(read).toMatchObject({ pose: { mood: 'calm' }, lens: { shift: [0, 0] }, weather: 'fog', thumbnail: null });
    const view = rowOf('00000000-0000-4000-8000-000000000002', read);
    const lists = { model: [], action: [], light: [], move: [], view: [view], reel: [], shot: [], take: [], link: [] };
    const document = { seq: 3, unreadable: [], project: rowOf(PROJECT, { client: 'Parish', motto: 'calm' }), ...lists };
    const parsed = projectDocumentReader.parse(JSON.parse(JSON.stringify(document)));
    expect(parsed.view[0]!.body).toMatchObject({ weather: 'fog', pose: { mood: 'calm' } });
    expect(parsed.project.body).toMatchObject({ motto: 'calm', round: 'Round 1' });
  });
});

describe('text that no database keeps', () => {
  test('is found with its place, in names and values', () => {
    expect(unkeepableText({ a: ['fine', 'no\u0000'] })).toEqual(['a', '1']);
    expect(unkeepableText({ 'b\ud800': 1 })).toEqual([]);
    expect(unkeepableText({ a: 'emoji 🐦', b: 'عنوان', c: null, d: 1e300 })).toBeNull();
  });

  test('is mended so that nothing of it is left', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.integer({ min: 0, max: 0xffff }).map((code) => String.fromCharCode(code)) }),
        (text) => {
          const mended = mendText(text);
          expect(unkeepableText(mended)).toBeNull();
          expect(mended).toHaveLength(text.length);
          expect(mendText(mended)).toBe(mended);
        },
      ),
    );
  });
});
