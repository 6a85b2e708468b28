import type { GroundWorker } from '../../worker/ground.worker.ts';
import { handOf, type Hand } from '../../worker/hand.ts';
import { startWorker } from '../../worker/start-worker.ts';

/** A worker that knows the ground of the site from one question to the next. */
export type GroundHand = Hand<GroundWorker>;

export const startGround = (): GroundHand => handOf(startWorker('ground'), 'The worker that knows the ground');
