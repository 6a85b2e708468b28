import { handOf, type Hand } from '../../worker/hand.ts';
import type { ReelWorker } from '../../worker/reel.worker.ts';
import { startWorker } from '../../worker/start-worker.ts';

/** A worker that knows the reel. */
export type ReelHand = Hand<ReelWorker>;

export const startReelHand = (which = ''): ReelHand =>
  handOf(startWorker('reel', which), 'The worker that knows the reel');
