import { z } from 'zod';
import { request } from '../data/api.ts';
import { thisTab } from '../data/tab.ts';

const replySchema = z.object({ granted: z.boolean() });
/** The server gives a lease for 20 s: it is asked for again well within. */
const RENEW_MS = 6000;
/** Whoever waits for somebody else's work looks again after this. */
const LOOK_MS = 2000;

/**
 * Does work that one page of all is enough for. A page that holds the lease and closes loses it by itself; then
 * another one takes the work up.
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
  // Somebody may have finished between the last look and the lease.
  if (await isThere()) return;
  const timer = setInterval(() => void ask().catch(() => {}), RENEW_MS);
  try {
    await work();
  } finally {
    clearInterval(timer);
  }
}
