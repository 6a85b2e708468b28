import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { id, keepFile, makeProject, takeBody, viewBody, walkBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';

let studio: TestApp;
beforeAll(async () => {
  studio = await startTestApp();
});
afterAll(() => studio.stop());

const put = (path: string, body: object) => studio.http.put(path).send(body);

describe('rows of a project', () => {
  test('are made, listed in order, changed, deleted and restored', async () => {
    const project = await makeProject(studio.http);
    const [a, b] = [id(), id()];
    await put(`/api/projects/${project}/moves/${a}`, { name: 'Second', order: 2, body: walkBody }).expect(200);
    await put(`/api/projects/${project}/moves/${b}`, { name: 'First', order: 1, body: walkBody }).expect(200);
    const list = await studio.http.get(`/api/projects/${project}/moves`).expect(200);
    expect(list.body.map((row: { name: string }) => row.name)).toEqual(['First', 'Second']);
    const changed = await studio.http
      .patch(`/api/projects/${project}/moves/${a}`)
      .send({ revision: 1, name: 'Arrival', order: 0.5 })
      .expect(200);
    expect(changed.body).toMatchObject({ name: 'Arrival', order: 0.5, revision: 2, body: walkBody });
    await studio.http.delete(`/api/projects/${project}/moves/${a}?revision=2`).expect(200);
    await studio.http.get(`/api/projects/${project}/moves/${a}`).expect(404);
    await studio.http.post(`/api/projects/${project}/moves/${a}/restore`).send({ revision: 3 }).expect(201);
    const document = await studio.http.get(`/api/projects/${project}/document`).expect(200);
    expect(document.body.move.map((row: { name: string }) => row.name)).toEqual(['Arrival', 'First']);
  });

  test('the same creation twice makes one row', async () => {
    const project = await makeProject(studio.http);
    const move = id();
    await put(`/api/projects/${project}/moves/${move}`, { name: 'Once', body: walkBody }).expect(200);
    await put(`/api/projects/${project}/moves/${move}`, { name: 'Once', body: walkBody }).expect(200);
    expect((await studio.http.get(`/api/projects/${project}/moves`)).body).toHaveLength(1);
  });

  test('a write based on an old revision is refused with the row as it is now', async () => {
    const project = await makeProject(studio.http);
    const move = id();
    await put(`/api/projects/${project}/moves/${move}`, { name: 'Mine', body: walkBody }).expect(200);
    const base = `/api/projects/${project}/moves/${move}`;
    await studio.http.patch(base).send({ revision: 1, name: 'Theirs' }).expect(200);
    const refused = await studio.http.patch(base).send({ revision: 1, name: 'Mine too' }).expect(409);
    expect(refused.body).toMatchObject({ code: 'conflict', current: { name: 'Theirs', revision: 2 } });
    await studio.http.delete(`${base}?revision=1`).expect(409);
    expect((await studio.http.get(base)).body.name).toBe('Theirs');
  });

  test('of twenty writers at once exactly one wins each revision', async () => {
    const project = await makeProject(studio.http);
    const move = id();
    const base = `/api/projects/${project}/moves/${move}`;
    await put(base, { name: 'Start', body: walkBody }).expect(200);
    const replies = await Promise.all(
      Array.from({ length: 20 }, (_, i) => studio.http.patch(base).send({ revision: 1, name: `Writer ${i}` })),
    );
    expect(replies.filter((reply) => reply.status === 200)).toHaveLength(1);
    expect(replies.filter((reply) => reply.status === 409)).toHaveLength(19);
    expect((await studio.http.get(base)).body.revision).toBe(2);
  });

  test('takes are numbered without gaps or doubles, also when made at once', async () => {
    const project = await makeProject(studio.http);
    const file = await keepFile(studio.http, 'film', 'video/mp4');
    const made = await Promise.all(
      Array.from({ length: 8 }, () =>
        put(`/api/projects/${project}/takes/${id()}`, { name: 'Take', body: takeBody(file) }),
      ),
    );
    expect(made.map((reply) => reply.body.body.number).sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    const last = made.find((reply) => reply.body.body.number === 8)!;
    await studio.http.delete(`/api/projects/${project}/takes/${last.body.id}?revision=1`).expect(200);
    const next = await put(`/api/projects/${project}/takes/${id()}`, { name: 'Take', body: takeBody(file) }).expect(
      200,
    );
    expect(next.body.body.number).toBe(9);
  });

  test('rows of one project cannot be reached through another', async () => {
    const [mine, other] = [await makeProject(studio.http), await makeProject(studio.http)];
    const move = id();
    await put(`/api/projects/${mine}/moves/${move}`, { name: 'Mine', body: walkBody }).expect(200);
    await studio.http.get(`/api/projects/${other}/moves/${move}`).expect(404);
    await studio.http.patch(`/api/projects/${other}/moves/${move}`).send({ revision: 1, name: 'Stolen' }).expect(404);
    await put(`/api/projects/${id()}/moves/${id()}`, { name: 'Nowhere', body: walkBody }).expect(404);
  });
});

describe('what is refused', () => {
  test.each([
    ['an empty name', { name: '   ', body: walkBody }, 'name'],
    ['a name of 10,000 characters', { name: 'x'.repeat(10_000), body: walkBody }, 'name'],
    [
      'a path without coordinates',
      { name: 'Walk', body: { ...walkBody, path: { closed: false, nodes: [{ id: id(), x: null, y: 0, z: 0 }] } } },
      'body.path.nodes.0.x',
    ],
    ['an unknown kind of move', { name: 'Walk', body: { ...walkBody, kind: 'teleport' } }, 'body.kind'],
    ['an eye below the floor', { name: 'Walk', body: { ...walkBody, eyeHeight: -1 } }, 'body.eyeHeight'],
    ['a member that nobody knows', { name: 'Walk', body: walkBody, admin: true }, undefined],
  ])('%s, naming the field', async (_, body, field) => {
    const project = await makeProject(studio.http);
    const reply = await put(`/api/projects/${project}/moves/${id()}`, body).expect(422);
    expect(reply.body.code).toBe('invalid');
    expect(reply.body.message.length).toBeGreaterThan(5);
    if (field) expect(reply.body.field).toBe(field);
    expect((await studio.http.get(`/api/projects/${project}/moves`)).body).toEqual([]);
  });

  test('ids and revisions that are none', async () => {
    const project = await makeProject(studio.http);
    await studio.http.get(`/api/projects/${project}/moves/not-an-id`).expect(422);
    await studio.http.delete(`/api/projects/${project}/moves/${id()}?revision=abc`).expect(422);
    await studio.http.delete(`/api/projects/${project}/moves/${id()}?revision=1`).expect(404);
  });

  test('a body that is not JSON, and one that is too large', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/moves/${id()}`;
    const broken = await studio.http.put(path).set('Content-Type', 'application/json').send('{"name": ').expect(400);
    expect(broken.body.message).toMatch(/JSON/);
    await put(path, { name: 'Big', body: { ...walkBody, filler: 'x'.repeat(5 * 1024 ** 2) } }).expect(413);
  });

  test('a row that names a file which was never stored', async () => {
    const project = await makeProject(studio.http);
    const ghost = { sha256: 'a'.repeat(64), size: 10, mediaType: 'image/webp' };
    const reply = await put(`/api/projects/${project}/views/${id()}`, { name: 'View', body: viewBody(ghost) }).expect(
      422,
    );
    expect(reply.body.code).toBe('file-missing');
  });

  test.each(['emoji 🐦', 'عنوان من اليمين', 'a'.repeat(120)])('but a name like “%s” is fine', async (name) => {
    const project = await makeProject(studio.http);
    const reply = await put(`/api/projects/${project}/moves/${id()}`, { name, body: walkBody }).expect(200);
    expect(reply.body.name).toBe(name);
  });
});

describe('actions', () => {
  const action = { kind: 'recorded', model: id(), movement: 'Ride' };

  test('are rows of a project like the others, with what was not said filled in', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/actions/${id()}`;
    const made = await put(path, { name: 'Off to the hill', body: action }).expect(200);
    expect(made.body.body).toEqual({ ...action, start: 0, speed: 1, repeat: 'once' });
    const { body } = await studio.http.get(`/api/projects/${project}/document`).expect(200);
    expect(body.action).toHaveLength(1);
    await studio.http.delete(`${path}?revision=1`).expect(200);
    expect((await studio.http.get(`/api/projects/${project}/document`)).body.action).toEqual([]);
  });

  test.each([
    ['of no known kind', { ...action, kind: 'fly' }, 'body'],
    ['without a movement', { ...action, movement: '' }, 'body.movement'],
    ['that begin before the move', { ...action, start: -1 }, 'body.start'],
    ['that spin about nothing', { kind: 'spin', model: id(), part: 'Wheel', axis: [0, 0, 0], rate: 1 }, 'body.axis'],
  ])('%s are refused with the field that is wrong', async (_, body, field) => {
    const project = await makeProject(studio.http);
    const reply = await put(`/api/projects/${project}/actions/${id()}`, { name: 'Action', body }).expect(422);
    expect(reply.body.field).toMatch(new RegExp(`^${field}`));
    expect((await studio.http.get(`/api/projects/${project}/actions`)).body).toEqual([]);
  });
});

describe('projects', () => {
  test('show as cards with their counts and a cover, and vanish when deleted', async () => {
    const project = await makeProject(studio.http, 'Card');
    const thumbnail = await keepFile(studio.http, 'picture');
    await put(`/api/projects/${project}/views/${id()}`, { name: 'View', body: viewBody(thumbnail) }).expect(200);
    const card = async () =>
      (await studio.http.get('/api/projects')).body.find((c: { project: { id: string } }) => c.project.id === project);
    expect(await card()).toMatchObject({ cover: thumbnail.sha256, counts: { view: 1, move: 0 } });
    await studio.http.patch(`/api/projects/${project}`).send({ revision: 1, name: 'Renamed' }).expect(200);
    await studio.http.delete(`/api/projects/${project}?revision=2`).expect(200);
    expect(await card()).toBeUndefined();
    await put(`/api/projects/${project}/moves/${id()}`, { name: 'Late', body: walkBody }).expect(404);
    await studio.http.post(`/api/projects/${project}/restore`).send({ revision: 3 }).expect(201);
    expect((await card()).project.name).toBe('Renamed');
  });
});
