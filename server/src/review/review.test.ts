import { get } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { BodyOf, ChildKind, FileRef } from '@eskovan/core/document';
import { editOf, id, keepFile, makeProject, makeRow, send, takeBody, viewBody } from '../testing/examples.ts';
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
  const make = <K extends ChildKind>(kind: K, name: string, body: BodyOf<K>, rowId = id()) =>
    makeRow(studio.http, project, kind, body, { name, rowId });
  await make('take', 'Arrival', takeBody(film), take);
  await make('take', 'Rejected', takeBody(secret), hiddenTake);
  await make('view', 'Hall', viewBody(thumbnail), view);
  await make('view', 'Not sent', viewBody());
  await make('link', 'Link 1', { token, takeIds: [take], viewIds: [view], expires: null }, link);
});
afterAll(() => studio.stop());

describe('a review link', () => {
  test('shows what was put into it and nothing else', async () => {
    const page = (await studio.review.get(`/api/review/${token}`).expect(200)).body;
    expect(page).toMatchObject({
      project: 'Ternholm Observatory',
      takes: [{ name: 'Arrival', seconds: 2, file: film.sha256 }],
      views: [{ name: 'Hall' }],
    });
    expect(page.takes).toHaveLength(1);
    expect(page.views).toHaveLength(1);
    expect(JSON.stringify(page)).not.toContain('Rejected');
  });

  test('shows the newest take first, whatever order they were chosen in', async () => {
    const newer = id();
    await makeRow(studio.http, project, 'take', { ...takeBody(film), number: 7 }, { name: 'Arrival', rowId: newer });
    for (const [both, takeIds] of [
      ['D'.repeat(43), [take, newer]],
      ['E'.repeat(43), [newer, take]],
    ] as const) {
      await makeRow(studio.http, project, 'link', { token: both, takeIds: [...takeIds], viewIds: [], expires: null });
      const { takes } = (await studio.review.get(`/api/review/${both}`).expect(200)).body;
      expect(takes.map((one: { id: string }) => one.id)).toEqual([newer, take]);
    }
  });

  test('serves its own files only', async () => {
    await studio.review.get(`/api/review/${token}/files/${film.sha256}`).set('Range', 'bytes=0-2').expect(206);
    await studio.review.get(`/api/review/${token}/files/${secret.sha256}`).expect(404);
    await studio.review.get(`/api/review/${'B'.repeat(43)}/files/${film.sha256}`).expect(404);
  });

  test('that nobody made, or that is malformed, opens nothing', async () => {
    await studio.review.get(`/api/review/${'B'.repeat(43)}`).expect(404);
    await studio.review.get('/api/review/short').expect(422);
  });

  test('stops at its end, and when the studio ends it', async () => {
    const past = 'C'.repeat(43);
    await makeRow(studio.http, project, 'link', {
      token: past,
      takeIds: [],
      viewIds: [],
      expires: '2020-01-01T00:00:00.000Z',
    });
    const ended = await studio.review.get(`/api/review/${past}`).expect(410);
    expect(ended.body.message).toMatch(/ended/);
    await send(studio.http, editOf(project, [{ op: 'remove', kind: 'link', id: link }])).expect(200);
    await studio.review.get(`/api/review/${token}`).expect(404);
    await send(studio.http, editOf(project, [{ op: 'restore', kind: 'link', id: link }])).expect(200);
    await studio.review.get(`/api/review/${token}`).expect(200);
  });
});

/** A request with headers that a browser or proxy elsewhere would send, by either door. */
function ask(port: number, path: string, headers: Record<string, string>): Promise<number> {
  return new Promise((resolve, reject) => {
    get({ host: '127.0.0.1', port, path, headers }, (response) => {
      response.resume();
      resolve(response.statusCode!);
    }).once('error', reject);
  });
}

describe('studio and review never share a door', () => {
  const studioPaths = () => [
    '/api/projects',
    `/api/projects/${project}/document`,
    `/api/projects/${project}/changes?after=0`,
    `/api/files/${secret.sha256}`,
    '/api/live',
    '/api/openapi.json',
    '/api/docs',
    '/api/settings',
    '/api/health',
  ];

  test.each([
    ['as it is', { host: 'review.example' }],
    ['passed on with a forwarding header', { host: 'localhost', 'x-forwarded-for': '203.0.113.7' }],
    ['passed on as localhost, without any header', { host: 'localhost' }],
  ])('a request to the review port %s reaches reviews and nothing of the studio', async (_, headers) => {
    for (const path of studioPaths())
      expect([path, await ask(studio.config.reviewPort, path, headers)]).toEqual([path, 404]);
    expect(await ask(studio.config.reviewPort, `/api/review/${token}`, headers)).toBe(200);
  });

  test('the studio’s port shows no review, and the studio to its own machine only', async () => {
    expect(await ask(studio.port, `/api/review/${token}`, { host: 'localhost' })).toBe(404);
    expect(await ask(studio.port, '/api/projects', { host: 'localhost' })).toBe(200);
    for (const path of studioPaths()) {
      expect([path, await ask(studio.port, path, { host: 'evil.example' })]).toEqual([path, 403]);
      expect([path, await ask(studio.port, path, { host: 'localhost', forwarded: 'for=203.0.113.7' })]).toEqual([
        path,
        403,
      ]);
    }
  });

  test('another site cannot write', async () => {
    const reply = await send(studio.http, editOf(project, [{ op: 'remove', kind: 'link', id: link }]))
      .set('Origin', 'https://elsewhere.example')
      .expect(403);
    expect(reply.body.message).toMatch(/site/);
  });

  test('links name the address that clients reach', async () => {
    expect((await studio.http.get('/api/settings').expect(200)).body).toEqual({
      reviewAddress: `http://localhost:${studio.config.reviewPort}`,
    });
    const far = await startTestApp({ publicUrl: 'https://review.example' });
    expect((await far.http.get('/api/settings')).body.reviewAddress).toBe('https://review.example');
    await far.stop();
  });
});

describe('around it', () => {
  test('health, the API page and strict headers', async () => {
    expect((await studio.http.get('/api/health').expect(200)).body).toEqual({ status: 'ok', database: 'ok' });
    const api = (await studio.http.get('/api/openapi.json').expect(200)).body;
    const { get, put } = api.paths['/api/projects/{projectId}/moves/{id}'];
    expect(JSON.stringify(get.responses['200'])).toContain('eyeHeight');
    expect(put).toBeUndefined();
    const { headers } = await studio.http.get('/api/health');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

test('who asks too often is told so, in the shape of every other answer; a link has a limit of its own', async () => {
  const far = await startTestApp({ trustProxy: 1, reviewLimits: { perAddress: 12, perLink: 40 } });
  const ask = (address: string, of = 'D') =>
    far.review.get(`/api/review/${of.repeat(43)}`).set('X-Forwarded-For', address);
  const statuses = new Set<number>();
  for (let n = 0; n < 12; n += 1) statuses.add((await ask('203.0.113.7')).status);
  expect([...statuses]).toEqual([404]);
  const refused = await ask('203.0.113.7').expect(429);
  expect(refused.body).toEqual({ code: 'too-many', message: 'That was too often. Wait a minute and try again.' });
  // Another address is another person, as the trusted proxy says.
  await ask('203.0.113.8').expect(404);
  // However many addresses one link is asked from, it has an end.
  let asked = 13;
  for (let last = 404; last !== 429; asked += 1) last = (await ask(`198.51.100.${asked}`)).status;
  // What was refused for its address was not asked of the link.
  expect(asked).toBe(41);
  await ask('198.51.100.9', 'E').expect(404);
  await far.stop();
});

test('a client who looks at many pictures and seeks in a film stays below the limits', async () => {
  const { perAddress, perLink } = studio.config.reviewLimits;
  const statuses = new Set<number>();
  for (let n = 0; n < 60; n += 1) statuses.add((await studio.review.get(`/api/review/${token}`)).status);
  expect([...statuses]).toEqual([200]);
  // Ten such pages a minute from one office; and a link that fifty clients look at.
  expect(perAddress).toBeGreaterThanOrEqual(10 * 60);
  expect(perLink).toBeGreaterThanOrEqual(50 * 60);
});
