import * as Comlink from 'comlink';
import type { GroundWorker } from '../../worker/ground.worker.ts';

/** A worker that knows the ground of the site from one question to the next. */
export interface GroundHand {
  remote: Comlink.Remote<GroundWorker>;
  /** Never comes, unless the worker breaks or is stopped. */
  stopped: Promise<never>;
  stop: () => void;
}

export function startGround(): GroundHand {
  const worker = new Worker(new URL('../../worker/ground.worker.ts', import.meta.url), {
    type: 'module',
    name: 'ground',
  });
  let stop = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => {
      worker.terminate();
      // Whoever still waits must not wait for ever.
      reject(new Error('The worker that knows the ground has stopped.'));
    };
    worker.addEventListener('error', stop);
  });
  stopped.catch(() => undefined);
  return { remote: Comlink.wrap<GroundWorker>(worker), stopped, stop };
}
