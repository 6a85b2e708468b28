import { mkdtemp, mkdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Sequelize } from 'sequelize-typescript';
import { readConfig } from './config.ts';
import { MIGRATIONS } from './database/migrations.ts';
import { migrate } from './database/migrate.ts';
import { makeProject, makeRow, viewBody, walkBody } from './testing/examples.ts';
import { startTestApp, type TestApp } from './testing/test-app.ts';

let studio: TestApp;
let webFolder: string;
beforeAll(async () => {
  webFolder = await mkdtemp(join(tmpdir(), 'eskovan-web-'));
  await mkdir(join(webFolder, 'assets'));
  await writeFile(join(webFolder, 'index.html'), '<title>Studio</title>');
  await writeFile(join(webFolder, 'review.html'), '<title>Client</title>');
  await writeFile(join(webFolder, 'assets', 'app-1.js'), 'export {}');
  studio = await startTestApp({ webFolder });
});
afterAll(async () => {
  await studio.stop();
  await rm(webFolder, { recursive: true, force: true });
});

describe('the pages', () => {
  test.each(['/', '/project/abc/moves', '/anything/else'])(
    '%s is the studio’s page, never kept by the browser',
    async (path) => {
      const reply = await studio.http.get(path).expect(200);
      expect(reply.text).toContain('Studio');
      expect(reply.headers['cache-control']).toBe('no-cache');
    },
  );

  test('a review link has a page of its own', async () => {
    await studio.http.get(`/review/${'A'.repeat(43)}`).expect(404);
    await studio.review.get('/').expect(404);
    await studio.review.get('/project/abc/moves').expect(404);
    expect((await studio.review.get(`/review/${'A'.repeat(43)}`).expect(200)).text).toContain('Client');
  });

  test('built files may be kept for ever; missing ones are missing, not a page', async () => {
    const reply = await studio.http.get('/assets/app-1.js').expect(200);
    expect(reply.headers['cache-control']).toContain('immutable');
    await studio.http.get('/assets/nothing.js').expect(404);
  });

  test('an unknown part of the API is no page', async () => {
    const reply = await studio.http.get('/api/nothing').expect(404);
    expect(reply.body.code).toBe('not-found');
  });
});

describe('the database', () => {
  const sequelize = () => studio.app.get(Sequelize);

  test('migrating again does nothing', async () => {
    await migrate(sequelize());
    const [rows] = await sequelize().query('SELECT name FROM migration ORDER BY name');
    expect((rows as { name: string }[]).map(({ name }) => name)).toEqual(MIGRATIONS.map(({ name }) => name));
  });

  test('a row written by a newer program is left out, said, and left as it is; the others are there', async () => {
    const project = await makeProject(studio.http);
    const view = await makeRow(studio.http, project, 'view', viewBody(), { name: 'From later' });
    await makeRow(studio.http, project, 'view', viewBody(), { name: 'Fine' });
    await makeRow(studio.http, project, 'move', walkBody);
    await sequelize().query(`UPDATE view SET version = 99, body = '{"from":"the future"}' WHERE id = :id`, {
      replacements: { id: view.id },
    });
    const one = await studio.http.get(`/api/projects/${project}/views/${view.id}`).expect(409);
    expect(one.body.message).toMatch(/version 99/);
    const document = (await studio.http.get(`/api/projects/${project}/document`).expect(200)).body;
    expect(document.view.map(({ name }: { name: string }) => name)).toEqual(['Fine']);
    expect(document.move).toHaveLength(1);
    expect(document.unreadable).toMatchObject([{ kind: 'view', id: view.id, name: 'From later' }]);
    const [rows] = await sequelize().query('SELECT body FROM view WHERE id = :id', { replacements: { id: view.id } });
    expect((rows as { body: unknown }[])[0]!.body).toEqual({ from: 'the future' });
  });

  test('servers that start together take turns in bringing it up to date', async () => {
    await Promise.all([migrate(sequelize()), migrate(sequelize()), migrate(sequelize())]);
  });

  test('a project cannot vanish from under its rows', async () => {
    const project = await makeProject(studio.http);
    await makeRow(studio.http, project, 'view', viewBody());
    await expect(
      sequelize().query('DELETE FROM project WHERE id = :project', { replacements: { project } }),
    ).rejects.toThrow(/foreign key/);
  });
});

describe('the settings', () => {
  const whole = { DATABASE_URL: 'postgres://localhost/x', ESKOVAN_DATA: '/tmp/x' };
  test('have defaults', () => {
    expect(readConfig(whole)).toMatchObject({
      port: 5170,
      reviewPort: 5171,
      publicUrl: null,
      webFolder: null,
      largestFile: 2 * 1024 ** 3,
    });
  });

  test('take the public address without its last slash, and proxies by number or address', () => {
    const settings = readConfig({ ...whole, PUBLIC_URL: 'https://review.example/', TRUST_PROXY: '1' });
    expect(settings).toMatchObject({ publicUrl: 'https://review.example', trustProxy: 1 });
    expect(readConfig({ ...whole, TRUST_PROXY: '10.0.0.1' }).trustProxy).toBe('10.0.0.1');
  });

  test.each([
    [{ ...whole, DATABASE_URL: '' }, /DATABASE_URL/],
    [{ ...whole, PORT: 'seventy' }, /PORT/],
    [{ ...whole, PORT: '70000' }, /PORT/],
    [{ DATABASE_URL: 'x' }, /ESKOVAN_DATA/],
    [{ ...whole, PUBLIC_URL: 'ftp://review.example' }, /PUBLIC_URL/],
  ])('name what is wrong: %j', (environment, says) => expect(() => readConfig(environment)).toThrow(says));
});
