import { execFile } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { type Change, type FileRef, type ProjectDocument, type Row } from '@eskovan/core/document';
import { expect, test } from '@playwright/test';
import { editOfOtto } from '../support/edits.ts';
import { ownStudio } from '../support/own-studio.ts';
import { VIEW } from '../support/rows.ts';
import { fileURLToPath } from 'node:url';

const KILLS = Number(process.env['ESKOVAN_KILLS'] ?? 50);
/** People who edit and send files all the while. */
const HANDS = 3;

/** What the server has confirmed to somebody: the last name of each row, and each file that was kept. */
interface Confirmed {
  names: Map<string, string>;
  files: Map<string, FileRef>;
}

async function post<T>(
  address: string,
  path: string,
  type: string,
  body: string | Uint8Array<ArrayBuffer>,
): Promise<T> {
  const reply = await fetch(address + path, { method: 'POST', headers: { 'Content-Type': type }, body });
  if (!reply.ok) throw new Error(`${reply.status} ${await reply.text()}`);
  return (await reply.json()) as T;
}

test(`${KILLS} kills in the middle of edits and uploads: what was reported as saved is there, nothing half-made`, async () => {
  test.setTimeout(60_000 + KILLS * 20_000);
  const studio = await ownStudio();
  try {
    const projectId = crypto.randomUUID();
    const send = (label: string, changes: Change[]) => {
      const edit = editOfOtto(projectId, label, changes);
      return post(studio.address, `/api/projects/${projectId}/edits`, 'application/json', JSON.stringify(edit));
    };
    await send('New project', [{ op: 'make', kind: 'project', id: projectId, name: 'Kills', order: 0, body: {} }]);
    const confirmed: Confirmed = { names: new Map(), files: new Map() };
    let stop = false;
    let count = 0;
    /** Makes a row with a file, renames it a few times, begins again; what fails is forgotten, as nobody was told of it. */
    const hand = async () => {
      while (!stop) {
        try {
          const bytes = new Uint8Array(randomBytes(20_000 + Math.floor(Math.random() * 400_000)));
          const thumbnail = await post<FileRef>(studio.address, '/api/files', 'image/webp', bytes);
          confirmed.files.set(thumbnail.sha256, thumbnail);
          const id = crypto.randomUUID();
          let name = `View ${(count += 1)}`;
          await send('Keep', [{ op: 'make', kind: 'view', id, name, order: count, body: { ...VIEW, thumbnail } }]);
          confirmed.names.set(id, name);
          for (let n = 1; n <= 3; n += 1) {
            const after = `${name.split(',')[0]}, ${n}`;
            // From here on either name may be there: the answer decides.
            confirmed.names.delete(id);
            await send('Rename', [{ op: 'set', kind: 'view', id, facet: ['name'], before: name, after }]);
            name = after;
            confirmed.names.set(id, name);
          }
        } catch {
          await new Promise((resolve) => setTimeout(resolve, 50));
        }
      }
    };
    const hands = Array.from({ length: HANDS }, hand);
    for (let n = 0; n < KILLS; n += 1) {
      await new Promise((resolve) => setTimeout(resolve, 100 + Math.random() * 500));
      await studio.kill();
      await studio.start();
    }
    stop = true;
    await Promise.all(hands);
    expect(confirmed.files.size).toBeGreaterThan(KILLS);

    const document = (await (
      await fetch(`${studio.address}/api/projects/${projectId}/document`)
    ).json()) as ProjectDocument;
    expect(document.unreadable).toEqual([]);
    const rows = new Map(document.view.map((row: Row<'view'>) => [row.id, row]));
    for (const [id, name] of confirmed.names) expect([id, rows.get(id)?.name]).toEqual([id, name]);
    // No row without its file, no file that is not what its name says.
    for (const row of rows.values()) confirmed.files.set(row.body.thumbnail!.sha256, row.body.thumbnail!);
    for (const sha256 of confirmed.files.keys()) {
      const hash = createHash('sha256');
      await pipeline(createReadStream(join(studio.dataFolder, 'files', sha256.slice(0, 2), sha256)), hash);
      expect(hash.digest('hex')).toBe(sha256);
    }
    // An hour later nothing lies about: no upload half-written, no file that no list knows.
    await promisify(execFile)('node', [fileURLToPath(new URL('../support/sweep-later.mjs', import.meta.url))], {
      env: { ...process.env, DATABASE_URL: studio.databaseUrl, ESKOVAN_DATA: studio.dataFolder },
    });
    expect(await readdir(join(studio.dataFolder, 'incoming'))).toEqual([]);
    const onDisk = (await readdir(join(studio.dataFolder, 'files'), { recursive: true, withFileTypes: true })).filter(
      (entry) => entry.isFile(),
    );
    for (const { name } of onDisk)
      expect((await fetch(`${studio.address}/api/files/${name}`, { method: 'HEAD' })).status).toBe(200);
  } finally {
    await studio.stop();
  }
});
