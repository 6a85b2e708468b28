import { handOf, type Hand } from '../../worker/hand.ts';
import type { ReelWorker } from '../../worker/reel.worker.ts';

/** A worker that knows the reel. */
export type ReelHand = Hand<ReelWorker>;

export const startReelHand = (name: string): ReelHand =>
  handOf(
    new Worker(new URL('../../worker/reel.worker.ts', import.meta.url), { type: 'module', name }),
    'The worker that knows the reel',
  );
