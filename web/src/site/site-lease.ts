import { z } from 'zod';
import { request } from '../data/api.ts';
import { thisTab } from '../data/tab.ts';

const replySchema = z.object({ granted: z.boolean() });
/** The server gives a lease for 20 s: it is asked for again well within. */
const RENEW_MS = 6000;
/** Whoever waits for somebody else's work looks again after this. */
const LOOK_MS = 2000;

/** The newest work of this page, by what it is about: one that was broken off for it must not give its lease away. */
const working = new Map<string, symbol>();

/**
 * Does work that one page of all is enough for. A page that has done it, or closes, gives the lease back; one that crashes
 * loses it by itself. Then another one takes the work up.
 * @param path the site's address
 * @param isThere looks whether somebody else has done it meanwhile, and shows what there is of it
 */
export async function onePageOfAll(
  path: string,
  { signal, isThere, work }: { signal: AbortSignal; isThere: () => Promise<boolean>; work: () => Promise<void> },
): Promise<void> {
  const ask = () =>
    request('POST', `${path}/lease`, { schema: replySchema, body: { holder: thisTab }, signal }).then(
      ({ granted }) => granted,
    );
  while (!(await ask())) {
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    signal.throwIfAborted();
    if (await isThere()) return;
  }
  const mine = Symbol(path);
  working.set(path, mine);
  const timer = setInterval(() => void ask().catch(() => {}), RENEW_MS);
  const giveBack = () => {
    clearInterval(timer);
    if (working.get(path) !== mine) return;
    working.delete(path);
    // Also from a page that is just being closed, or loaded again.
    void fetch(`${path}/lease/${thisTab}`, { method: 'DELETE', keepalive: true }).catch(() => {});
  };
  window.addEventListener('pagehide', giveBack);
  try {
    // Somebody may have finished between the last look and the lease.
    if (!(await isThere())) await work();
  } finally {
    window.removeEventListener('pagehide', giveBack);
    giveBack();
  }
}
