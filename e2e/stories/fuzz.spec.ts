import { request as httpRequest } from 'node:http';
import { expect, test } from '@playwright/test';
import { fuzz, INSIDES, type FuzzedRequest } from '../support/fuzz.ts';
import { editElsewhere } from '../support/edits.ts';
import { ownStudio, type OwnStudio } from '../support/own-studio.ts';
import { VIEW } from '../support/rows.ts';

/** ESKOVAN_FUZZ sets another length and ESKOVAN_FUZZ_SEED another beginning. */
const COUNT = Number(process.env['ESKOVAN_FUZZ'] ?? 10_000);
const SEED = Number(process.env['ESKOVAN_FUZZ_SEED'] ?? 7);
/** An answer that takes longer hangs. */
const PATIENCE_MS = 10_000;
/** Asked at the same time. */
const HANDS = 4;

let studio: OwnStudio;
test.beforeAll(async () => {
  studio = await ownStudio();
});
test.afterAll(() => studio.stop());

function ask(port: number, { method, path, headers, body }: FuzzedRequest): Promise<{ status: number; text: string }> {
  // Node gives bodies of some methods no length by itself: the server would read them as the next request.
  const length = body === undefined ? {} : { 'content-length': String(Buffer.byteLength(body)) };
  return new Promise((resolve, reject) => {
    const sent = httpRequest(
      { host: '127.0.0.1', port, method, path, headers: { host: 'localhost', ...length, ...headers } },
      (reply) => {
        const chunks: Buffer[] = [];
        reply.on('data', (chunk: Buffer) => chunks.push(chunk));
        reply.on('end', () => resolve({ status: reply.statusCode!, text: Buffer.concat(chunks).toString() }));
      },
    );
    sent.setTimeout(PATIENCE_MS, () => sent.destroy(new Error(`no answer: ${method} ${path}`)));
    sent.once('error', (error) => reject(new Error(`${error.message}: ${method} ${path} ${JSON.stringify(headers)}`)));
    sent.end(body);
  });
}

test(`${COUNT} fuzzed requests over all routes: no 500, no hang, nothing of the insides in an answer`, async ({
  request,
}) => {
  test.setTimeout(60_000 + COUNT * 60);
  const projectId = crypto.randomUUID();
  const address = studio.address;
  const api = { post: (path: string, options: object) => request.post(address + path, options) } as typeof request;
  const token = 'F'.repeat(43);
  const upload = await request.post(`${address}/api/files`, {
    headers: { 'content-type': 'image/webp' },
    data: Buffer.from('a picture'),
  });
  const file = (await upload.json()) as { sha256: string };
  const [view, link] = [crypto.randomUUID(), crypto.randomUUID()];
  await editElsewhere(api, projectId, 'Ready', [
    { op: 'make', kind: 'project', id: projectId, name: 'Fuzz', order: 0, body: {} },
    { op: 'make', kind: 'view', id: view, name: 'View', order: 0, body: { ...VIEW, thumbnail: file } },
    { op: 'make', kind: 'link', id: link, name: 'Link', order: 0, body: { token, takeIds: [], viewIds: [view] } },
  ]);
  const requests = fuzz(SEED, {
    projects: [projectId],
    rows: [projectId, view, link],
    files: [file.sha256],
    tokens: [token],
  });
  const bad: string[] = [];
  const statuses = new Map<number, number>();
  let left = COUNT;
  const work = async () => {
    while (left > 0) {
      left -= 1;
      const one = requests.next().value as FuzzedRequest;
      // Both doors take what comes; the studio's more often, since there is more behind it.
      const port = left % 5 === 0 ? studio.reviewPort : studio.port;
      const { status, text } = await ask(port, one).catch((error: Error) =>
        // A request that is no HTTP is refused by Node itself.
        error.message.includes('unescaped') || error.message.includes('Invalid')
          ? { status: 0, text: '' }
          : Promise.reject(error),
      );
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      const words = status >= 400 ? text.replace(/<!doctype html>[\s\S]*/i, '') : '';
      if (status >= 500 || INSIDES.test(words))
        bad.push(`${one.method} ${one.path} ${String(one.body ?? '').slice(0, 400)} → ${status} ${text.slice(0, 400)}`);
    }
  };
  await Promise.all(Array.from({ length: HANDS }, work));
  test.info().annotations.push({
    type: 'answers',
    description: [...statuses]
      .sort()
      .map(([status, count]) => `${status}: ${count}`)
      .join(', '),
  });
  expect(bad).toEqual([]);
  // It came far enough to mean something, and the server is well.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(COUNT / 50);
  expect((await request.get(`${address}/api/health`)).ok()).toBe(true);
});
