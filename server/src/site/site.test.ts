import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { SiteBody } from '@eskovan/core/document';
import { SiteModel } from '../database/rows.ts';
import { FileSweep } from '../file/file-sweep.ts';
import { id, keepFile, makeProject } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';
import { KEPT } from './site.service.ts';

let studio: TestApp;
beforeAll(async () => {
  studio = await startTestApp();
});
afterAll(() => studio.stop());

const keyOf = (n: number) => n.toString(16).padStart(28, '0');

async function siteBody(name = 'survey'): Promise<SiteBody> {
  const file = await keepFile(studio.http, name, 'application/octet-stream');
  return {
    survey: file,
    floor: file,
    walkway: null,
    first: true,
    bounds: { min: [0, 0, 0], max: [1, 1, 1] },
    triangles: 12,
    storeys: [{ name: 'Ground', elevation: 0, area: 20 }],
  };
}

describe('the site of a project', () => {
  test('is kept under what it was computed from, and given back', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/sites/${keyOf(1)}`;
    await studio.http.get(path).expect(204);
    const body = await siteBody();
    expect((await studio.http.put(path).send(body).expect(200)).body).toEqual(body);
    expect((await studio.http.get(path).expect(200)).body).toEqual(body);
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(2)}`).expect(204);
  });

  test('can be put again, with its navigation mesh', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/sites/${keyOf(1)}`;
    const body = await siteBody();
    await studio.http.put(path).send(body).expect(200);
    await studio.http
      .put(path)
      .send({ ...body, walkway: body.survey, first: false })
      .expect(200);
    expect((await studio.http.get(path)).body).toMatchObject({ walkway: body.survey, first: false });
  });

  test('its lights are kept beside it, by names of their own, and so are their files', async () => {
    const project = await makeProject(studio.http);
    const path = (n: number) => `/api/projects/${project}/lit/${keyOf(n)}`;
    await studio.http.get(path(1)).expect(204);
    const scene = await keepFile(studio.http, `a light of ${project}`, 'application/octet-stream');
    const rough = { scene, glance: null, first: true };
    for (const body of [rough, { ...rough, first: false }]) {
      await studio.http.put(path(1)).send(body).expect(200);
      expect((await studio.http.get(path(1)).expect(200)).body).toEqual(body);
    }
    // A site of the same name is another thing.
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(1)}`).expect(204);
    await studio.app.get(FileSweep).sweep(Date.now() + 48 * 3600 * 1000);
    await studio.http.get(`/api/files/${scene.sha256}`).expect(200);
    await studio.http
      .put(path(1))
      .send({ ...rough, scene: null })
      .expect(422);
    // Many lights of one site stay: a person tries times of day.
    for (let n = 2; n <= KEPT.lit.most + 1; n += 1) await studio.http.put(path(n)).send(rough).expect(200);
    await studio.http.get(path(1)).expect(204);
    await studio.http.get(path(2)).expect(200);
  });

  test('two that put the same at once leave one', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/sites/${keyOf(3)}`;
    const body = await siteBody();
    const replies = await Promise.all([1, 2, 3, 4].map(() => studio.http.put(path).send(body)));
    expect(replies.map(({ status }) => status)).toEqual([200, 200, 200, 200]);
    expect(await SiteModel.count({ where: { projectId: project } })).toBe(1);
  });

  test('old ones go, those used last stay', async () => {
    const project = await makeProject(studio.http);
    const body = await siteBody();
    for (let n = 1; n <= 6; n += 1) await studio.http.put(`/api/projects/${project}/sites/${keyOf(n)}`).send(body);
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(1)}`).expect(200);
    await studio.http
      .put(`/api/projects/${project}/sites/${keyOf(7)}`)
      .send(body)
      .expect(200);
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(1)}`).expect(200);
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(2)}`).expect(204);
  });

  test('is refused for projects, keys, files and shapes that are not', async () => {
    const project = await makeProject(studio.http);
    const body = await siteBody();
    await studio.http
      .put(`/api/projects/${id()}/sites/${keyOf(1)}`)
      .send(body)
      .expect(404);
    await studio.http.put(`/api/projects/${project}/sites/not-a-key`).send(body).expect(422);
    await studio.http
      .put(`/api/projects/${project}/sites/${keyOf(1)}`)
      .send({ ...body, triangles: -1 })
      .expect(422);
    const unknown = { sha256: 'f'.repeat(64), size: 1, mediaType: 'x/y' };
    await studio.http
      .put(`/api/projects/${project}/sites/${keyOf(1)}`)
      .send({ ...body, floor: unknown })
      .expect(422);
    await studio.http.get(`/api/projects/${project}/sites/${keyOf(1)}`).expect(204);
  });

  test('its files are in use: sweeping leaves them', async () => {
    const project = await makeProject(studio.http);
    const body = await siteBody(`only in a site ${project}`);
    await studio.http
      .put(`/api/projects/${project}/sites/${keyOf(1)}`)
      .send(body)
      .expect(200);
    await studio.app.get(FileSweep).sweep(Date.now() + 48 * 3600 * 1000);
    await studio.http.get(`/api/files/${body.survey.sha256}`).expect(200);
  });

  test('one page of all computes it; who stops asking loses the lease', async () => {
    const project = await makeProject(studio.http);
    const path = `/api/projects/${project}/sites/${keyOf(1)}/lease`;
    const ask = async (holder: string) => (await studio.http.post(path).send({ holder }).expect(200)).body.granted;
    const [a, b] = [id(), id()];
    const first = await Promise.all([ask(a), ask(b)]);
    expect(first.filter(Boolean)).toHaveLength(1);
    const [holder, other] = first[0] ? [a, b] : [b, a];
    expect(await ask(holder)).toBe(true);
    expect(await ask(other)).toBe(false);
    await SiteModel.sequelize!.query(`UPDATE site_lease SET until = now() - interval '1 second'`);
    expect(await ask(other)).toBe(true);
    expect(await ask(holder)).toBe(false);
    // Only who has it can give it back.
    await studio.http.delete(`${path}/${holder}`).expect(200);
    expect(await ask(holder)).toBe(false);
    await studio.http.delete(`${path}/${other}`).expect(200);
    expect(await ask(holder)).toBe(true);
    await studio.http.delete(`${path}/me`).expect(422);
    await studio.http
      .post(`/api/projects/${id()}/sites/${keyOf(1)}/lease`)
      .send({ holder: a })
      .expect(404);
    await studio.http.post(path).send({ holder: 'me' }).expect(422);
  });
});
