import type { ClipWorker } from '../../worker/clip.worker.ts';
import { handOf, type Hand } from '../../worker/hand.ts';
import { startWorker } from '../../worker/start-worker.ts';

let reader: Hand<ClipWorker> | null = null;
let reading = 0;

function start(): Hand<ClipWorker> {
  const hand = handOf<ClipWorker>(startWorker('clip'), 'The worker that reads films');
  // Whoever asks after it broke gets another one.
  hand.stopped.catch(() => reader === hand && (reader = null));
  return hand;
}

/**
 * Asks the worker that reads films; it lives as long as there is something to read.
 * @throws Error when it breaks, and whatever it answers with: ClipError for what is no film
 */
export async function readClip<T>(ask: (remote: Hand<ClipWorker>['remote']) => Promise<T>): Promise<T> {
  reading += 1;
  const hand = (reader ??= start());
  try {
    return await Promise.race([ask(hand.remote), hand.stopped]);
  } finally {
    reading -= 1;
    if (reading === 0) {
      reader?.stop();
      reader = null;
    }
  }
}
