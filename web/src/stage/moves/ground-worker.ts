import type { GroundWorker } from '../../worker/ground.worker.ts';
import { handOf, type Hand } from '../../worker/hand.ts';

/** A worker that knows the ground of the site from one question to the next. */
export type GroundHand = Hand<GroundWorker>;

export const startGround = (): GroundHand =>
  handOf(
    new Worker(new URL('../../worker/ground.worker.ts', import.meta.url), { type: 'module', name: 'ground' }),
    'The worker that knows the ground',
  );
