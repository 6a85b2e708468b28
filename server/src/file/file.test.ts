import { createHash } from 'node:crypto';
import { mkdir, readdir, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { editOf, keepFile, makeProject, makeRow, send, viewBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';
import { FileStore } from './file-store.ts';
import { FileSweep, GRACE_MS, STRAY_MS } from './file-sweep.ts';

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
    const { connect } = await import('node:net');
    const socket = connect(studio.port, '127.0.0.1');
    socket.write(
      `POST /api/files HTTP/1.1\r\nHost: localhost\r\nContent-Type: image/webp\r\nContent-Length: 1000\r\n\r\nhalf`,
    );
    await waitFor(async () => (await incoming()).length === 1);
    socket.destroy();
    await waitFor(async () => (await incoming()).length === 0);
  });
});

describe('a full disk', () => {
  test('is told in words, with nothing of the system’s own', async () => {
    const full = Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' });
    const keep = jest.spyOn(studio.app.get(FileStore), 'keep').mockRejectedValueOnce(full);
    const reply = await studio.http
      .post('/api/files')
      .set('Content-Type', 'image/webp')
      .send(Buffer.from('x'))
      .expect(507);
    expect(reply.body).toEqual({
      code: 'disk-full',
      message: 'The disk of the server is full. Nothing was changed; make room and try again.',
    });
    keep.mockRestore();
  });
});

describe('what a file is', () => {
  test('is said by the rows that use it: sending the same bytes as something else changes nothing', async () => {
    const project = await makeProject(studio.http);
    const picture = await keepFile(studio.http, 'once a picture', 'image/webp');
    await makeRow(studio.http, project, 'view', viewBody(picture));
    await keepFile(studio.http, 'once a picture', 'application/zip');
    const reply = await studio.http.get(`/api/files/${picture.sha256}`).expect(200);
    expect(reply.headers['content-type']).toBe('image/webp');
  });

  test('that its bytes are missing is never remembered by a browser', async () => {
    const file = await keepFile(studio.http, 'soon gone');
    await rm(studio.app.get(FileStore).pathOf(file.sha256));
    const reply = await studio.http.get(`/api/files/${file.sha256}`).expect(404);
    expect(reply.headers['cache-control']).toBe('no-store');
    // Sending it again mends it.
    await keepFile(studio.http, 'soon gone');
    const mended = await studio.http.get(`/api/files/${file.sha256}`).expect(200);
    expect(mended.headers['cache-control']).toContain('immutable');
  });
});

describe('sweeping', () => {
  const later = (ms = GRACE_MS) => Date.now() + ms + 1000;
  const sweep = (now = later()) => studio.app.get(FileSweep).sweep(now);

  test('removes what nothing uses after a day, and keeps what a row, the log or a site needs', async () => {
    const project = await makeProject(studio.http);
    const [used, undone, loose] = [
      await keepFile(studio.http, 'used'),
      await keepFile(studio.http, 'undone'),
      await keepFile(studio.http, 'loose'),
    ];
    await makeRow(studio.http, project, 'view', viewBody(used));
    const view = await makeRow(studio.http, project, 'view', viewBody(undone));
    await send(
      studio.http,
      editOf(project, [
        { op: 'set', kind: 'view', id: view.id, facet: ['body', 'thumbnail'], before: undone, after: null },
      ]),
    ).expect(200);
    expect((await sweep(Date.now())).unused).toBe(0);
    await sweep();
    await studio.http.get(`/api/files/${used.sha256}`).expect(200);
    await studio.http.get(`/api/files/${undone.sha256}`).expect(200);
    await studio.http.get(`/api/files/${loose.sha256}`).expect(404);
    await expect(stat(studio.app.get(FileStore).pathOf(loose.sha256))).rejects.toThrow();
  });

  test('a picture that a machine replaced is not kept for anybody', async () => {
    const project = await makeProject(studio.http);
    const [first, second] = [
      await keepFile(studio.http, 'first picture'),
      await keepFile(studio.http, 'second picture'),
    ];
    const view = await makeRow(studio.http, project, 'view', viewBody());
    for (const after of [first, second])
      await send(
        studio.http,
        editOf(project, [{ op: 'set', kind: 'view', id: view.id, facet: ['body', 'thumbnail'], before: null, after }], {
          machine: true,
        }),
      ).expect(200);
    await sweep();
    await studio.http.get(`/api/files/${first.sha256}`).expect(404);
    await studio.http.get(`/api/files/${second.sha256}`).expect(200);
  });

  test('leaves what it does not know, and a server starts beside it', async () => {
    const { dataFolder } = studio.config;
    await writeFile(join(dataFolder, 'files', '.DS_Store'), 'x');
    await mkdir(join(dataFolder, 'files', 'ab'), { recursive: true });
    await writeFile(join(dataFolder, 'files', 'ab', 'notes.txt'), 'x');
    await writeFile(join(dataFolder, 'incoming', '.DS_Store'), 'x');
    await studio.app.get(FileStore).onModuleInit();
    await sweep();
    expect((await stat(join(dataFolder, 'files', '.DS_Store'))).size).toBe(1);
    expect((await stat(join(dataFolder, 'files', 'ab', 'notes.txt'))).size).toBe(1);
    expect((await stat(join(dataFolder, 'incoming', '.DS_Store'))).size).toBe(1);
    await rm(join(dataFolder, 'incoming', '.DS_Store'));
  });

  test('what a crash left half-written or unlisted is gone an hour later, not before', async () => {
    const half = join(studio.config.dataFolder, 'incoming', crypto.randomUUID());
    const name = 'c'.repeat(64);
    const stray = studio.app.get(FileStore).pathOf(name);
    await writeFile(half, 'half a file');
    await mkdir(join(stray, '..'), { recursive: true });
    await writeFile(stray, 'moved in, never listed');
    expect((await sweep(Date.now())).stray).toBe(0);
    expect((await sweep(later(STRAY_MS))).stray).toBe(2);
    expect(await incoming()).toEqual([]);
    await expect(stat(stray)).rejects.toThrow();
  });

  test('while rows are saved takes no file from any of them', async () => {
    const project = await makeProject(studio.http);
    const old = async (content: string) => {
      const file = await keepFile(studio.http, content);
      await utimes(studio.app.get(FileStore).pathOf(file.sha256), 1, 1);
      return file;
    };
    const files = await Promise.all(Array.from({ length: 60 }, (_, i) => old(`swept while saving ${i}`)));
    const now = later();
    const [saved] = await Promise.all([
      Promise.all(
        files.map(async (file) => {
          const change = {
            op: 'make',
            kind: 'view',
            id: crypto.randomUUID(),
            name: 'View',
            order: 0,
            body: viewBody(file),
          } as const;
          return (await send(studio.http, editOf(project, [change]))).status;
        }),
      ),
      (async () => {
        for (let n = 0; n < 6; n += 1) await sweep(now);
      })(),
    ]);
    // Each is either saved with its file, or refused in words because the file had gone before.
    for (const [i, status] of saved.entries()) {
      expect([200, 422]).toContain(status);
      await studio.http.get(`/api/files/${files[i]!.sha256}`).expect(status === 200 ? 200 : 404);
    }
  });

  test('while the same content is sent again never leaves a listed file without bytes', async () => {
    const content = (i: number) => `sent again ${i % 10}`;
    for (let i = 0; i < 10; i += 1) await keepFile(studio.http, content(i));
    let sending = true;
    const sweeping = (async () => {
      // Every listed file is old enough at once: the worst case.
      while (sending) await sweep(later());
    })();
    const kept = await Promise.all(Array.from({ length: 80 }, (_, i) => keepFile(studio.http, content(i))));
    sending = false;
    await sweeping;
    for (const { sha256 } of kept) {
      const store = studio.app.get(FileStore);
      if (await store.find(sha256)) expect(await store.hashOf(sha256)).toBe(sha256);
      else await expect(stat(store.pathOf(sha256))).rejects.toThrow();
    }
  });
});

async function waitFor(holds: () => Promise<boolean>): Promise<void> {
  const until = Date.now() + 5000;
  while (!(await holds())) {
    if (Date.now() > until) throw new Error('waited five seconds in vain');
    await new Promise((resolve) => setImmediate(resolve));
  }
}
