import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { SiteLight } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import type { GatheredBlock } from '@eskovan/core/survey';
import type { GatherOrder } from './gather.worker.ts';

/** Threads that gather light at the same time: each holds the whole site. */
const MOST_THREADS = 4;

/** Gathers the light of a site on all cores. What is gathered does not depend on their number. */
export function gatherLight(site: SceneModel, lights: readonly SiteLight[]): Promise<GatheredBlock[]> {
  const shares = Math.min(MOST_THREADS, availableParallelism());
  return Promise.all(
    Array.from(
      { length: shares },
      (_, share) =>
        new Promise<GatheredBlock>((resolve, reject) => {
          const order: GatherOrder = { site, lights, share, shares };
          const worker = new Worker(new URL('./gather.worker.js', import.meta.url), { workerData: order });
          worker.once('message', resolve);
          worker.once('error', reject);
        }),
    ),
  );
}
