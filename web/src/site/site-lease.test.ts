import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';

/** Who has the lease by the server, and what it was asked, in order. */
let holder: string | null = null;
const asked: string[] = [];
const tab = 'this tab';
jest.unstable_mockModule('../data/tab.ts', () => ({ thisTab: tab }));
const { onePageOfAll } = await import('./site-lease.ts');

const fetched = globalThis.fetch;
beforeEach(() => {
  holder = null;
  asked.length = 0;
  globalThis.fetch = ((path: string, { method }: RequestInit) => {
    asked.push(`${method} ${path}`);
    if (method === 'POST') holder ??= tab;
    else if (holder === tab) holder = null;
    return Promise.resolve({ ok: true, json: () => Promise.resolve({ granted: holder === tab }) });
  }) as typeof fetch;
});
afterEach(() => {
  globalThis.fetch = fetched;
});

const begin = (work: () => Promise<void>, isThere = () => Promise.resolve(false)) =>
  onePageOfAll('/sites/1', { signal: new AbortController().signal, isThere, work });

test('whoever has done it, or failed, gives the lease back; so does a page that is closed in the middle', async () => {
  await begin(() => Promise.resolve());
  expect(holder).toBeNull();
  await expect(begin(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
  expect(holder).toBeNull();
  let finish = () => {};
  const done = begin(() => new Promise((resolve) => (finish = resolve)));
  await new Promise((resolve) => setTimeout(resolve));
  expect(holder).toBe(tab);
  window.dispatchEvent(new Event('pagehide'));
  expect(holder).toBeNull();
  finish();
  await done;
  // Once is enough.
  expect(asked.filter((line) => line.startsWith('DELETE'))).toHaveLength(3);
});

test('work that was broken off for newer work does not give away what that one has', async () => {
  let breakOff = (_: Error) => {};
  const old = begin(() => new Promise((_, reject) => (breakOff = reject)));
  await new Promise((resolve) => setTimeout(resolve));
  let finish = () => {};
  const newer = begin(() => new Promise((resolve) => (finish = resolve)));
  await new Promise((resolve) => setTimeout(resolve));
  breakOff(new Error('something newer'));
  await expect(old).rejects.toThrow();
  expect(holder).toBe(tab);
  finish();
  await newer;
  expect(holder).toBeNull();
});

test('what is there already by the time one has the lease is not done again', async () => {
  const work = jest.fn(() => Promise.resolve());
  await begin(work, () => Promise.resolve(true));
  expect(work).not.toHaveBeenCalled();
  expect(holder).toBeNull();
});
