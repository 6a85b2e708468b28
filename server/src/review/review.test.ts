import { get } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { FileRef } from '@eskovan/core/document';
import { id, keepFile, makeProject, takeBody, viewBody, walkBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';

let studio: TestApp;
let project: string;
let film: FileRef;
let secret: FileRef;
const token = 'A'.repeat(43);
const [take, hiddenTake, view, link] = [id(), id(), id(), id()];

beforeAll(async () => {
  studio = await startTestApp();
  project = await makeProject(studio.http, 'Ternholm Observatory');
  film = await keepFile(studio.http, 'the film', 'video/mp4');
  secret = await keepFile(studio.http, 'not for clients', 'video/mp4');
  const thumbnail = await keepFile(studio.http, 'picture');
  const put = (path: string, body: object) =>
    studio.http.put(`/api/projects/${project}/${path}`).send(body).expect(200);
  await put(`takes/${take}`, { name: 'Arrival', body: takeBody(film) });
  await put(`takes/${hiddenTake}`, { name: 'Rejected', body: takeBody(secret) });
  await put(`views/${view}`, { name: 'Hall', body: viewBody(thumbnail) });
  await put(`views/${id()}`, { name: 'Not sent', body: viewBody() });
  await put(`links/${link}`, { name: 'Link 1', body: { token, takeIds: [take], viewIds: [view], expires: null } });
});
afterAll(() => studio.stop());

describe('a review link', () => {
  test('shows what was put into it and nothing else', async () => {
    const page = (await studio.http.get(`/api/review/${token}`).expect(200)).body;
    expect(page).toMatchObject({
      project: 'Ternholm Observatory',
      takes: [{ name: 'Arrival', seconds: 2, file: film.sha256 }],
      views: [{ name: 'Hall' }],
    });
    expect(page.takes).toHaveLength(1);
    expect(page.views).toHaveLength(1);
    expect(JSON.stringify(page)).not.toContain('Rejected');
  });

  test('serves its own files only', async () => {
    await studio.http.get(`/api/review/${token}/files/${film.sha256}`).set('Range', 'bytes=0-2').expect(206);
    await studio.http.get(`/api/review/${token}/files/${secret.sha256}`).expect(404);
    await studio.http.get(`/api/review/${'B'.repeat(43)}/files/${film.sha256}`).expect(404);
  });

  test('that nobody made, or that is malformed, opens nothing', async () => {
    await studio.http.get(`/api/review/${'B'.repeat(43)}`).expect(404);
    await studio.http.get('/api/review/short').expect(422);
  });

  test('stops at its end, and when the studio ends it', async () => {
    const past = 'C'.repeat(43);
    await studio.http
      .put(`/api/projects/${project}/links/${id()}`)
      .send({ name: 'Old', body: { token: past, takeIds: [], viewIds: [], expires: '2020-01-01T00:00:00.000Z' } })
      .expect(200);
    const ended = await studio.http.get(`/api/review/${past}`).expect(410);
    expect(ended.body.message).toMatch(/ended/);
    await studio.http.delete(`/api/projects/${project}/links/${link}?revision=1`).expect(200);
    await studio.http.get(`/api/review/${token}`).expect(404);
    await studio.http.post(`/api/projects/${project}/links/${link}/restore`).send({ revision: 2 }).expect(201);
    await studio.http.get(`/api/review/${token}`).expect(200);
  });
});

/** A request with headers that a browser on another machine or site would send. */
function ask(path: string, headers: Record<string, string>): Promise<number> {
  const { port } = studio.app.getHttpServer().address() as { port: number };
  return new Promise((resolve, reject) => {
    get({ host: '127.0.0.1', port, path, headers }, (response) => {
      response.resume();
      resolve(response.statusCode!);
    }).once('error', reject);
  });
}

describe('the studio is closed to everybody but its own machine', () => {
  test.each([
    ['a foreign name pointed here', { host: 'evil.example' }],
    ['a request passed on by a proxy', { host: 'localhost', 'x-forwarded-for': '203.0.113.7' }],
  ])('%s gets the client page but not the studio', async (_, headers) => {
    expect(await ask('/api/projects', headers)).toBe(403);
    expect(await ask(`/api/projects/${project}/document`, headers)).toBe(403);
    expect(await ask(`/api/files/${secret.sha256}`, headers)).toBe(403);
    expect(await ask(`/api/review/${token}`, headers)).toBe(200);
  });

  test('another site cannot write', async () => {
    const reply = await studio.http
      .put(`/api/projects/${id()}`)
      .set('Origin', 'https://elsewhere.example')
      .send({ name: 'X', body: {} })
      .expect(403);
    expect(reply.body.message).toMatch(/site/);
  });
});

describe('around it', () => {
  test('health, the API page and strict headers', async () => {
    expect((await studio.http.get('/api/health').expect(200)).body).toEqual({ status: 'ok', database: 'ok' });
    const api = (await studio.http.get('/api/openapi.json').expect(200)).body;
    const body = api.paths['/api/projects/{projectId}/moves/{id}'].put.requestBody.content['application/json'].schema;
    expect(JSON.stringify(body)).toContain('eyeHeight');
    const { headers } = await studio.http.get('/api/health');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-powered-by']).toBeUndefined();
  });

  test('other tabs are told of changes', async () => {
    const { port } = studio.app.getHttpServer().address() as { port: number };
    const events = await fetch(`http://localhost:${port}/api/projects/${project}/events`);
    const reader = events.body!.getReader();
    const move = id();
    await studio.http.put(`/api/projects/${project}/moves/${move}`).send({ name: 'Told', body: walkBody }).expect(200);
    let text = '';
    while (!text.includes(move)) text += new TextDecoder().decode((await reader.read()).value);
    expect(text).toContain('"kind":"move"');
    await reader.cancel();
  });
});
