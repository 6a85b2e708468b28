import * as Comlink from 'comlink';
import type { ReelWorker } from '../../worker/reel.worker.ts';

/** A worker that knows the reel. */
export interface ReelHand {
  remote: Comlink.Remote<ReelWorker>;
  /** Never comes, unless the worker breaks or is stopped. */
  stopped: Promise<never>;
  stop: () => void;
}

export function startReelHand(name: string): ReelHand {
  const worker = new Worker(new URL('../../worker/reel.worker.ts', import.meta.url), { type: 'module', name });
  let stop = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => {
      worker.terminate();
      // Whoever still waits must not wait for ever.
      reject(new Error('The worker that knows the reel has stopped.'));
    };
    worker.addEventListener('error', stop);
  });
  stopped.catch(() => undefined);
  return { remote: Comlink.wrap<ReelWorker>(worker), stopped, stop };
}
