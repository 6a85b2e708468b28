import type { ClipWorker } from '../../worker/clip.worker.ts';
import { handOf, type Hand } from '../../worker/hand.ts';

let reader: Hand<ClipWorker> | null = null;
let reading = 0;

/**
 * Asks the worker that reads films; it lives as long as there is something to read.
 * @throws Error when it breaks: whoever asks again gets another one
 */
export async function readClip<T>(ask: (remote: Hand<ClipWorker>['remote']) => Promise<T>): Promise<T> {
  reading += 1;
  reader ??= handOf<ClipWorker>(
    new Worker(new URL('../../worker/clip.worker.ts', import.meta.url), { type: 'module', name: 'clip' }),
    'The worker that reads films',
  );
  const hand = reader;
  try {
    return await Promise.race([ask(hand.remote), hand.stopped]);
  } catch (error) {
    if (reader === hand) reader = null;
    throw error;
  } finally {
    reading -= 1;
    if (reading === 0) {
      reader?.stop();
      reader = null;
    }
  }
}
