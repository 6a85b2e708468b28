import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { walkOf, DOCUMENT_VERSION, invertChanges, type Change, type Edit, type Row } from '@eskovan/core/document';
import {
  editOf,
  id,
  keepFile,
  makeProject,
  makeRow,
  PERSON,
  send,
  takeBody,
  viewBody,
  walkBody,
} from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';

let studio: TestApp;
beforeAll(async () => {
  studio = await startTestApp();
});
afterAll(() => studio.stop());

const ines = PERSON;
const otto = { id: id(), name: 'Otto' };
const setting = (row: Row, member: string, after: unknown): Change => ({
  op: 'set',
  kind: 'move',
  id: row.id,
  facet: ['body', member],
  before: (row.body as Record<string, unknown>)[member],
  after,
});
const renaming = (row: Row, after: string): Change => ({
  op: 'set',
  kind: 'move',
  id: row.id,
  facet: ['name'],
  before: row.name,
  after,
});
const apply = (edit: Edit) => send(studio.http, edit);
const get = async (projectId: string, rowId: string) =>
  (await studio.http.get(`/api/projects/${projectId}/moves/${rowId}`).expect(200)).body as Row<'move'>;

async function walkIn(): Promise<{ project: string; walk: Row<'move'> }> {
  const project = await makeProject(studio.http);
  return { project, walk: await makeRow(studio.http, project, 'move', walkBody, { name: 'Walk' }) };
}

describe('an edit', () => {
  test('makes, changes, removes and restores rows; lists are in order', async () => {
    const project = await makeProject(studio.http);
    const a = await makeRow(studio.http, project, 'move', walkBody, { name: 'Second', order: 2 });
    const b = await makeRow(studio.http, project, 'move', walkBody, { name: 'First', order: 1 });
    const names = async () =>
      (await studio.http.get(`/api/projects/${project}/moves`)).body.map((row: Row) => row.name);
    expect(await names()).toEqual(['First', 'Second']);
    const changes: Change[] = [
      renaming(a, 'Arrival'),
      { op: 'set', kind: 'move', id: a.id, facet: ['order'], before: 2, after: 0.5 },
    ];
    const reply = await apply(editOf(project, changes)).expect(200);
    expect(reply.body.rows).toMatchObject([
      { kind: 'move', row: { name: 'Arrival', order: 0.5, revision: 2, body: walkBody } },
    ]);
    await apply(editOf(project, [{ op: 'remove', kind: 'move', id: b.id }])).expect(200);
    expect(await names()).toEqual(['Arrival']);
    await studio.http.get(`/api/projects/${project}/moves/${b.id}`).expect(404);
    await apply(editOf(project, [{ op: 'restore', kind: 'move', id: b.id }])).expect(200);
    expect(await names()).toEqual(['Arrival', 'First']);
  });

  test('of many rows is applied whole or not at all', async () => {
    const { project, walk } = await walkIn();
    const other = await makeRow(studio.http, project, 'move', walkBody, { name: 'Other' });
    await apply(editOf(project, [renaming(other, 'Theirs')], { by: otto })).expect(200);
    await apply(editOf(project, [renaming(walk, 'Mine'), renaming(other, 'Mine too')])).expect(409);
    expect((await get(project, walk.id)).name).toBe('Walk');
  });

  test('sent again is applied once and answered alike, also when it was sent twenty times at once', async () => {
    const { project, walk } = await walkIn();
    const edit = editOf(project, [setting(walk, 'eyeHeight', 1.7)]);
    const replies = await Promise.all(Array.from({ length: 20 }, () => apply(edit)));
    expect(replies.map(({ status }) => status)).toEqual(Array(20).fill(200));
    expect((await get(project, walk.id)).revision).toBe(2);
    // And after somebody has changed it further.
    await apply(
      editOf(project, [setting({ ...walk, body: { ...walkBody, eyeHeight: 1.7 } } as Row, 'eyeHeight', 1.8)]),
    ).expect(200);
    const late = await apply(edit).expect(200);
    expect(walkOf(late.body.rows[0].row.body).eyeHeight).toBe(1.8);
  });

  test('of an id that another edit has is refused', async () => {
    const { project, walk } = await walkIn();
    const edit = editOf(project, [renaming(walk, 'Mine')]);
    await apply(edit).expect(200);
    const reply = await apply({ ...edit, changes: [renaming(walk, 'Other')] }).expect(409);
    expect(reply.body.code).toBe('id-taken');
  });

  test('is refused where a facet is no longer what it was, with who made it so and the row as it is', async () => {
    const { project, walk } = await walkIn();
    await apply(editOf(project, [setting(walk, 'eyeHeight', 1.1)], { by: otto, label: 'Seated' })).expect(200);
    await apply(editOf(project, [renaming(walk, 'Renamed')], { by: otto, label: 'Rename' })).expect(200);
    const refused = await apply(editOf(project, [setting(walk, 'eyeHeight', 1.9)])).expect(409);
    expect(refused.body).toMatchObject({
      code: 'conflict',
      clashes: [
        {
          kind: 'move',
          id: walk.id,
          facet: ['body', 'eyeHeight'],
          reason: 'changed',
          current: 1.1,
          since: { by: 'Otto', label: 'Seated' },
        },
      ],
      rows: [{ kind: 'move', row: { name: 'Renamed', body: { eyeHeight: 1.1 } } }],
    });
  });

  test('of another facet of the same row just works', async () => {
    const { project, walk } = await walkIn();
    await Promise.all([
      apply(editOf(project, [setting(walk, 'eyeHeight', 1.1)], { by: otto })).expect(200),
      apply(editOf(project, [setting(walk, 'pace', { ...walkBody.pace, speed: 1 })])).expect(200),
      apply(editOf(project, [renaming(walk, 'Both')])).expect(200),
    ]);
    const row = await get(project, walk.id);
    expect(row).toMatchObject({ name: 'Both', revision: 4, body: { eyeHeight: 1.1, pace: { speed: 1 } } });
  });

  test('of twenty writers of one facet exactly one wins', async () => {
    const { project, walk } = await walkIn();
    const replies = await Promise.all(
      Array.from({ length: 20 }, (_, i) => apply(editOf(project, [renaming(walk, `Writer ${i}`)]))),
    );
    expect(replies.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(replies.filter(({ status }) => status === 409)).toHaveLength(19);
  });

  test('that is undone after another edit of the same facet says who and what, and overwrites nothing', async () => {
    const { project, walk } = await walkIn();
    const mine = editOf(project, [setting(walk, 'eyeHeight', 1.7), renaming(walk, 'Mine')]);
    await apply(mine).expect(200);
    const now = await get(project, walk.id);
    await apply(editOf(project, [setting(now, 'eyeHeight', 1.2)], { by: otto, label: 'Child' })).expect(200);
    const undo = await apply(editOf(project, invertChanges(mine.changes))).expect(409);
    expect(undo.body.clashes[0].since).toMatchObject({ by: 'Otto', label: 'Child' });
    expect(walkOf((await get(project, walk.id)).body).eyeHeight).toBe(1.2);
    expect((await get(project, walk.id)).name).toBe('Mine');
  });

  test('never strips members that this program does not know', async () => {
    const { project, walk } = await walkIn();
    const { sequelize } = await database();
    await sequelize.query(
      `UPDATE move SET body = jsonb_set(jsonb_set(body, '{weather}', '"fog"'), '{path,nodes,0,note}', '"turn here"') WHERE id = :id`,
      {
        replacements: { id: walk.id },
      },
    );
    const now = await get(project, walk.id);
    await apply(editOf(project, [setting(now, 'eyeHeight', 1.7)])).expect(200);
    const after = (await get(project, walk.id)).body as unknown as {
      weather: string;
      path: { nodes: { note: string }[] };
    };
    expect(after.weather).toBe('fog');
    expect(after.path.nodes[0]!.note).toBe('turn here');
  });

  test.each([
    [DOCUMENT_VERSION - 1, 'old-page'],
    [DOCUMENT_VERSION + 1, 'newer-page'],
  ])('of document version %d is told so and changes nothing', async (version, code) => {
    const { project, walk } = await walkIn();
    const reply = await apply(editOf(project, [renaming(walk, 'Old')], { version })).expect(409);
    expect(reply.body.code).toBe(code);
    expect((await get(project, walk.id)).name).toBe('Walk');
  });
});

async function database() {
  const { Sequelize } = await import('sequelize-typescript');
  return { sequelize: studio.app.get(Sequelize) };
}

describe('what a machine writes', () => {
  const derived = (row: Row, after: unknown): Change => ({
    op: 'set',
    kind: 'view',
    id: row.id,
    facet: ['body', 'thumbnail'],
    before: null,
    after,
  });

  test('carries no facet along that a person changed: a lens changed while its picture is drawn stays', async () => {
    const project = await makeProject(studio.http);
    const view = await makeRow(studio.http, project, 'view', viewBody());
    const { lens, pose } = view.body;
    const given = (['lens', 'pose'] as const).map((member) => ({
      kind: 'view' as const,
      id: view.id,
      facet: ['body', member] as ['body', string],
      value: { lens, pose }[member],
    }));
    const picture = await keepFile(studio.http, 'a picture of the old lens');
    const longer = { ...lens, focalLengthMm: 85 };
    await apply(
      editOf(project, [{ op: 'set', kind: 'view', id: view.id, facet: ['body', 'lens'], before: lens, after: longer }]),
    ).expect(200);
    // The picture of the old lens comes too late.
    await apply(editOf(project, [derived(view, picture)], { machine: true, given })).expect(409);
    const now = (await studio.http.get(`/api/projects/${project}/views/${view.id}`)).body as Row<'view'>;
    expect(now.body).toMatchObject({ lens: longer, thumbnail: null });
    // One of the new lens is in time, whatever picture was there before.
    const fresh = [{ ...given[0]!, value: longer }, given[1]!];
    await apply(editOf(project, [derived(view, picture)], { machine: true, given: fresh })).expect(200);
    const again = await keepFile(studio.http, 'another picture');
    await apply(editOf(project, [derived(view, again)], { machine: true, given: fresh })).expect(200);
    const facets = encodeURIComponent('[["body","thumbnail"]]');
    const { body } = await studio.http.get(`/api/projects/${project}/edits/before?row=${view.id}&facets=${facets}`);
    expect(body).toEqual([]);
  });

  test('is nothing of what belongs to people', async () => {
    const { project, walk } = await walkIn();
    for (const change of [renaming(walk, 'x'), { op: 'remove', kind: 'move', id: walk.id } as const]) {
      const reply = await apply(editOf(project, [change], { machine: true })).expect(422);
      expect(reply.body.message.length).toBeGreaterThan(20);
    }
  });
});

describe('takes and links', () => {
  test('takes are numbered without gaps or doubles, also when made at once', async () => {
    const project = await makeProject(studio.http);
    const file = await keepFile(studio.http, 'film', 'video/mp4');
    const make = (body: Row<'take'>['body'] = takeBody(file)): Edit =>
      editOf(project, [{ op: 'make', kind: 'take', id: id(), name: 'Take', order: 0, body }], { machine: true });
    const made = await Promise.all(Array.from({ length: 8 }, () => apply(make())));
    expect(made.map(({ body }) => body.rows[0].row.body.number).sort()).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    const last = made.find(({ body }) => body.rows[0].row.body.number === 8)!.body.rows[0].row;
    await apply(editOf(project, [{ op: 'remove', kind: 'take', id: last.id }])).expect(200);
    expect((await apply(make()).expect(200)).body.rows[0].row.body.number).toBe(9);
    expect((await apply(make({ ...takeBody(file), number: 3 })).expect(409)).body.code).toBe('number-taken');
    const renumber: Change = { op: 'set', kind: 'take', id: last.id, facet: ['body', 'number'], before: 8, after: 1 };
    expect((await apply(editOf(project, [renumber])).expect(422)).body.message).toMatch(/given once/);
  });

  test('a token that is taken, and more views than a link holds, are refused in words', async () => {
    const project = await makeProject(studio.http);
    const token = 'T'.repeat(43);
    await makeRow(studio.http, project, 'link', { token, takeIds: [], viewIds: [], expires: null });
    const make = (body: object): Edit =>
      editOf(project, [
        { op: 'make', kind: 'link', id: id(), name: 'Link', order: 0, body: body as Record<string, unknown> },
      ]);
    expect((await apply(make({ token, takeIds: [], viewIds: [] })).expect(409)).body.code).toBe('token-taken');
    const many = await apply(
      make({ token: 'U'.repeat(43), takeIds: [], viewIds: Array.from({ length: 201 }, id) }),
    ).expect(422);
    expect(many.body).toMatchObject({ code: 'invalid', field: 'body.viewIds' });
  });
});

describe('what is refused', () => {
  const make = (project: string, more: object): Edit =>
    editOf(project, [
      { op: 'make', kind: 'move', id: id(), name: 'Walk', order: 0, body: walkBody, ...more } as Change,
    ]);

  test.each([
    ['an empty name', { name: '   ' }, /name/],
    ['a name of 10,000 characters', { name: 'x'.repeat(10_000) }, /name/],
    [
      'a path without coordinates',
      { body: { ...walkBody, path: { closed: false, nodes: [{ id: id(), x: null, y: 0, z: 0 }] } } },
      /body\.path\.nodes\.0\.x/,
    ],
    ['an unknown kind of move', { body: { ...walkBody, kind: 'teleport' } }, /body\.kind/],
    ['an eye below the floor', { body: { ...walkBody, eyeHeight: -1 } }, /body\.eyeHeight/],
    ['a member that nobody knows', { admin: true }, /./],
    ['a name with U+0000', { name: 'a\u0000b' }, /character/],
    ['half of a pair of characters', { name: 'a\ud800' }, /character/],
    ['a number beyond all bounds', { order: Infinity }, /order/],
    ['a body that is no object', { body: [1, 2] }, /./],
  ])('%s', async (_, more, says) => {
    const project = await makeProject(studio.http);
    const reply = await apply(make(project, more)).expect(422);
    expect(reply.body.code).toBe('invalid');
    expect(`${reply.body.field} ${reply.body.message}`).toMatch(says);
    expect((await studio.http.get(`/api/projects/${project}/moves`)).body).toEqual([]);
  });

  test('a facet that is none, and an entry of what is no collection', async () => {
    const { project, walk } = await walkIn();
    const set = (facet: unknown): Edit =>
      editOf(project, [{ op: 'set', kind: 'move', id: walk.id, facet, before: 1, after: 2 } as Change]);
    await apply(set(['revision'])).expect(422);
    await apply(set(['body', 'pace', 'speed'])).expect(422);
    await apply(set(['body'])).expect(422);
    const proto = await apply(set(['body', '__proto__']));
    expect([409, 422]).toContain(proto.status);
  });

  test('a body that is not JSON, and one that is too large', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/edits`;
    const broken = await studio.http.post(path).set('Content-Type', 'application/json').send('{"name": ').expect(400);
    expect(broken.body.message).toMatch(/JSON/);
    expect(broken.headers['cache-control']).toBe('no-store');
    await studio.http
      .post(path)
      .send({ filler: 'x'.repeat(9 * 1024 ** 2) })
      .expect(413);
  });

  test('a row that names a file which was never stored', async () => {
    const project = await makeProject(studio.http);
    const ghost = { sha256: 'a'.repeat(64), size: 10, mediaType: 'image/webp' };
    const change: Change = { op: 'make', kind: 'view', id: id(), name: 'View', order: 0, body: viewBody(ghost) };
    expect((await apply(editOf(project, [change])).expect(422)).body.code).toBe('file-missing');
  });

  test.each(['emoji 🐦', 'عنوان من اليمين', 'a'.repeat(120)])('but a name like “%s” is fine', async (name) => {
    const project = await makeProject(studio.http);
    expect((await makeRow(studio.http, project, 'move', walkBody, { name })).name).toBe(name);
  });

  test('an edit of another project than its address, and rows of other projects', async () => {
    const { project, walk } = await walkIn();
    const other = await makeProject(studio.http);
    await studio.http
      .post(`/api/projects/${other}/edits`)
      .send(editOf(project, [renaming(walk, 'x')]))
      .expect(422);
    const stolen = await apply(editOf(other, [renaming(walk, 'Stolen')])).expect(409);
    expect(stolen.body).toMatchObject({ clashes: [{ reason: 'missing' }], rows: [] });
    await studio.http.get(`/api/projects/${other}/moves/${walk.id}`).expect(404);
    await apply(editOf(id(), [renaming(walk, 'Nowhere')])).expect(404);
    await apply(make(id(), {})).expect(404);
  });
});

describe('deleted things', () => {
  test('a deleted row is told as such; bringing it back and changing it is one edit', async () => {
    const { project, walk } = await walkIn();
    await apply(
      editOf(project, [{ op: 'remove', kind: 'move', id: walk.id }], { by: otto, label: 'Delete Walk' }),
    ).expect(200);
    const late = await apply(editOf(project, [setting(walk, 'eyeHeight', 1.7)])).expect(409);
    expect(late.body).toMatchObject({ clashes: [{ reason: 'deleted', since: { by: 'Otto', label: 'Delete Walk' } }] });
    await apply(
      editOf(project, [{ op: 'restore', kind: 'move', id: walk.id }, setting(walk, 'eyeHeight', 1.7)]),
    ).expect(200);
    expect(walkOf((await get(project, walk.id)).body).eyeHeight).toBe(1.7);
  });

  test('a deleted project answers 410 until it is brought back', async () => {
    const { project, walk } = await walkIn();
    await apply(editOf(project, [{ op: 'remove', kind: 'project', id: project }])).expect(200);
    expect((await apply(editOf(project, [renaming(walk, 'Late')])).expect(410)).body.code).toBe('gone');
    await studio.http.get(`/api/projects/${project}/document`).expect(404);
    await apply(
      editOf(project, [{ op: 'restore', kind: 'project', id: project }, renaming(walk, 'In time')], { by: ines }),
    ).expect(200);
    expect((await get(project, walk.id)).name).toBe('In time');
  });
});

describe('the log', () => {
  test('keeps what was done to a row and to a facet of it, and cannot be rewritten', async () => {
    const { project, walk } = await walkIn();
    await apply(editOf(project, [setting(walk, 'eyeHeight', 1.1)], { by: otto, label: 'Seated' })).expect(200);
    await apply(editOf(project, [renaming(walk, 'Renamed')], { label: 'Rename' })).expect(200);
    const labels = async (query: string) =>
      (await studio.http.get(`/api/projects/${project}/edits?row=${walk.id}${query}`).expect(200)).body.map(
        (entry: { label: string }) => entry.label,
      );
    expect(await labels('')).toEqual(['Rename', 'Seated', 'Something']);
    expect(await labels(`&facet=${encodeURIComponent('["body","eyeHeight"]')}`)).toEqual(['Seated', 'Something']);
    await studio.http.get(`/api/projects/${project}/edits?row=${walk.id}&facet=eyes`).expect(422);
    const before = async (facets: unknown) =>
      studio.http.get(
        `/api/projects/${project}/edits/before?row=${walk.id}&facets=${encodeURIComponent(JSON.stringify(facets))}`,
      );
    const { body, status } = await before([['body', 'eyeHeight'], ['name']]);
    expect(status).toBe(200);
    expect(body).toMatchObject([
      { label: 'Rename', before: [{ facet: ['name'], value: 'Walk' }] },
      { label: 'Seated', by: { name: 'Otto' }, before: [{ facet: ['body', 'eyeHeight'], value: 1.6 }] },
    ]);
    for (const wrong of [[], ['eyes'], 'name', Array.from({ length: 21 }, () => ['name'])])
      expect(await before(wrong)).toMatchObject({ status: 422, body: { code: 'invalid' } });
    const { sequelize } = await database();
    await expect(sequelize.query(`UPDATE edit SET label = 'forged'`)).rejects.toThrow(/only added/);
    await expect(sequelize.query(`DELETE FROM edit`)).rejects.toThrow(/only added/);
  });
});
