import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { CatchUp, Change, ProjectDocument, Row } from '@eskovan/core/document';
import { editOf, id, keepFile, makeProject, makeRow, send, viewBody, walkBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';

let studio: TestApp;
beforeAll(async () => {
  studio = await startTestApp();
});
afterAll(() => studio.stop());

const documentOf = async (project: string) =>
  (await studio.http.get(`/api/projects/${project}/document`).expect(200)).body as ProjectDocument;
const rename = (row: Row, after: string, kind: Change['kind'] = 'move'): Change => ({
  op: 'set',
  kind,
  id: row.id,
  facet: ['name'],
  before: row.name,
  after,
});

describe('a document', () => {
  test('holds all rows that are not deleted, in order, and the number of its newest edit', async () => {
    const project = await makeProject(studio.http);
    const before = await documentOf(project);
    await makeRow(studio.http, project, 'move', walkBody, { name: 'B', order: 2 });
    await makeRow(studio.http, project, 'move', walkBody, { name: 'A', order: 1 });
    const view = await makeRow(studio.http, project, 'view', viewBody());
    await send(studio.http, editOf(project, [{ op: 'remove', kind: 'view', id: view.id }])).expect(200);
    const document = await documentOf(project);
    expect(document.move.map(({ name }) => name)).toEqual(['A', 'B']);
    expect(document.view).toEqual([]);
    expect(document.unreadable).toEqual([]);
    expect(document.seq).toBeGreaterThan(before.seq);
  });

  test('comes packed, and is not sent again to whoever has it', async () => {
    const project = await makeProject(studio.http);
    const first = await studio.http.get(`/api/projects/${project}/document`).set('Accept-Encoding', 'gzip').expect(200);
    expect(first.headers['content-encoding']).toBe('gzip');
    const tag = first.headers['etag'] as string;
    await studio.http.get(`/api/projects/${project}/document`).set('If-None-Match', tag).expect(304);
    await makeRow(studio.http, project, 'move', walkBody);
    const next = await studio.http.get(`/api/projects/${project}/document`).set('If-None-Match', tag).expect(200);
    expect(next.headers['etag']).not.toBe(tag);
  });

  test('is whole while others write: a snapshot, never half an edit', async () => {
    const project = await makeProject(studio.http);
    const [a, b] = [
      await makeRow(studio.http, project, 'move', walkBody, { name: '0' }),
      await makeRow(studio.http, project, 'view', viewBody(), { name: '0' }),
    ];
    const writing = (async () => {
      for (let n = 0; n < 15; n += 1)
        await send(
          studio.http,
          editOf(project, [
            rename({ ...a, name: `${n}` }, `${n + 1}`),
            rename({ ...b, name: `${n}` }, `${n + 1}`, 'view'),
          ]),
        ).expect(200);
    })();
    for (let n = 0; n < 15; n += 1) {
      const { move, view } = await documentOf(project);
      expect(move[0]!.name).toBe(view[0]!.name);
    }
    await writing;
  });
});

describe('catching up', () => {
  test('tells the rows that changed since an edit, as they are now, deleted ones included', async () => {
    const project = await makeProject(studio.http);
    const walk = await makeRow(studio.http, project, 'move', walkBody, { name: 'Walk' });
    const gone = await makeRow(studio.http, project, 'move', walkBody, { name: 'Gone' });
    await makeRow(studio.http, project, 'move', walkBody, { name: 'Same' });
    const { seq } = await documentOf(project);
    await send(studio.http, editOf(project, [rename(walk, 'Once')], { label: 'First' })).expect(200);
    await send(studio.http, editOf(project, [rename({ ...walk, name: 'Once' }, 'Twice')])).expect(200);
    await send(studio.http, editOf(project, [{ op: 'remove', kind: 'move', id: gone.id }])).expect(200);
    const reply = (await studio.http.get(`/api/projects/${project}/changes?after=${seq}`).expect(200)).body as CatchUp;
    expect(reply.whole).toBe(false);
    expect(reply.rows.map(({ row }) => [row.name, row.deleted !== null]).sort()).toEqual([
      ['Gone', true],
      ['Twice', false],
    ]);
    expect(reply.edits[0]).toMatchObject({
      label: 'First',
      by: { name: 'Ines' },
      touched: [{ id: walk.id, revision: 2 }],
    });
    expect(reply.seq).toBe((await documentOf(project)).seq);
    await studio.http.get(`/api/projects/${project}/changes?after=-1`).expect(422);
    await studio.http.get(`/api/projects/${id()}/changes?after=0`).expect(404);
  });
});

describe('projects', () => {
  test('show as cards with their counts and a cover, and vanish when deleted', async () => {
    const project = await makeProject(studio.http, 'Card');
    const thumbnail = await keepFile(studio.http, 'picture');
    await makeRow(studio.http, project, 'view', viewBody(), { name: 'Bare', order: 0 });
    await makeRow(studio.http, project, 'view', viewBody(thumbnail), { name: 'View', order: 1 });
    const card = async () =>
      (await studio.http.get('/api/projects')).body.find(
        (one: { project: { id: string } }) => one.project.id === project,
      );
    expect(await card()).toMatchObject({
      project: { name: 'Card' },
      cover: thumbnail.sha256,
      counts: { view: 2, move: 0 },
    });
    await send(studio.http, editOf(project, [{ op: 'remove', kind: 'project', id: project }])).expect(200);
    expect(await card()).toBeUndefined();
    await send(studio.http, editOf(project, [{ op: 'restore', kind: 'project', id: project }])).expect(200);
    expect((await card()).project.name).toBe('Card');
  });
});
