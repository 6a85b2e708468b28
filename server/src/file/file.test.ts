import { createHash } from 'node:crypto';
import { readdir, stat, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { id, keepFile, makeProject, viewBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';
import { FileStore } from './file-store.ts';

let studio: TestApp;
beforeAll(async () => {
  studio = await startTestApp();
});
afterAll(() => studio.stop());

const incoming = () => readdir(join(studio.config.dataFolder, 'incoming'));

describe('keeping files', () => {
  test('names them by their content and gives back the same bytes, whole and in part', async () => {
    const file = await keepFile(studio.http, 'a small film', 'video/mp4');
    expect(file.sha256).toBe(createHash('sha256').update('a small film').digest('hex'));
    const whole = await studio.http.get(`/api/files/${file.sha256}`).expect(200);
    expect(whole.headers['content-type']).toBe('video/mp4');
    expect(Buffer.from(whole.body as Buffer).toString()).toBe('a small film');
    const part = await studio.http.get(`/api/files/${file.sha256}`).set('Range', 'bytes=2-6').expect(206);
    expect(Buffer.from(part.body as Buffer).toString()).toBe('small');
    expect(await incoming()).toEqual([]);
  });

  test('the same content is kept once', async () => {
    const [first, second] = [await keepFile(studio.http, 'same'), await keepFile(studio.http, 'same')];
    expect(second).toEqual(first);
  });

  test('what a browser should not show in place is a download', async () => {
    const file = await keepFile(studio.http, '{"a":1}', 'application/json');
    const reply = await studio.http.get(`/api/files/${file.sha256}`).expect(200);
    expect(reply.headers['content-disposition']).toBe('attachment');
    expect(reply.headers['x-content-type-options']).toBe('nosniff');
  });

  test.each([
    ['an empty file', '', 'image/webp', 422],
    ['a page', '<script>alert(1)</script>', 'text/html', 415],
    ['a drawing with script in it', '<svg/>', 'image/svg+xml', 415],
    ['more than the limit', 'x'.repeat(1024 ** 2 + 1), 'image/webp', 413],
  ])('refuses %s and leaves nothing behind', async (_, content, type, status) => {
    const reply = await studio.http
      .post('/api/files')
      .set('Content-Type', type)
      .send(Buffer.from(content))
      .expect(status);
    expect(reply.body.message.length).toBeGreaterThan(10);
    expect(await incoming()).toEqual([]);
  });

  test.each(['..%2f..%2fetc%2fpasswd', 'A'.repeat(64), 'abc', '%00'])(
    'no path of a request reaches the disk: %s',
    async (name) => {
      const reply = await studio.http.get(`/api/files/${name}`);
      expect([400, 404, 422]).toContain(reply.status);
    },
  );

  test('an upload that breaks off leaves nothing', async () => {
    const { port } = studio.app.getHttpServer().address() as { port: number };
    const { connect } = await import('node:net');
    const socket = connect(port, '127.0.0.1');
    socket.write(
      `POST /api/files HTTP/1.1\r\nHost: localhost\r\nContent-Type: image/webp\r\nContent-Length: 1000\r\n\r\nhalf`,
    );
    await waitFor(async () => (await incoming()).length === 1);
    socket.destroy();
    await waitFor(async () => (await incoming()).length === 0);
  });
});

describe('sweeping', () => {
  test('removes what nothing names after a day, and keeps what is named', async () => {
    const named = await keepFile(studio.http, 'named');
    const loose = await keepFile(studio.http, 'loose');
    const project = await makeProject(studio.http);
    await studio.http
      .put(`/api/projects/${project}/views/${id()}`)
      .send({ name: 'View', body: viewBody(named) })
      .expect(200);
    const store = studio.app.get(FileStore);
    const old = new Date(Date.now() - 2 * 24 * 3600 * 1000);
    for (const file of [named, loose]) await utimes(store.pathOf(file.sha256), old, old);
    await store.sweep();
    await studio.http.get(`/api/files/${named.sha256}`).expect(200);
    await studio.http.get(`/api/files/${loose.sha256}`).expect(404);
    await expect(stat(store.pathOf(loose.sha256))).rejects.toThrow();
  });

  test('a start throws away what a crash left half-written', async () => {
    await writeFile(join(studio.config.dataFolder, 'incoming', 'half'), 'half a file');
    await studio.app.get(FileStore).onModuleInit();
    expect(await incoming()).toEqual([]);
  });
});

async function waitFor(holds: () => Promise<boolean>): Promise<void> {
  const until = Date.now() + 5000;
  while (!(await holds())) {
    if (Date.now() > until) throw new Error('waited five seconds in vain');
    await new Promise((resolve) => setImmediate(resolve));
  }
}
