import { whileNobodyMoves } from './client.ts';
import type { FilmWorker } from '../worker/film.worker.ts';
import { handOf, type Hand } from '../worker/hand.ts';
import type { AsideWish } from './source.ts';

let last: Promise<unknown> = Promise.resolve();
let waiting = 0;
let hand: Hand<FilmWorker> | null = null;

/**
 * Draws a picture beside the one that is shown, in a worker of its own: one after the other, while nobody moves about.
 * The worker goes when nothing waits for it any more.
 */
export function drawAside(wish: AsideWish): Promise<Blob> {
  waiting += 1;
  const drawn = last.then(async () => {
    await whileNobodyMoves();
    hand ??= handOf(
      new Worker(new URL('../worker/film.worker.ts', import.meta.url), { type: 'module', name: 'aside' }),
      'The worker of small pictures',
    );
    try {
      return await Promise.race([hand.remote.small(wish), hand.stopped]);
    } catch (error) {
      drop();
      throw error;
    }
  });
  last = drawn
    .catch(() => {})
    .then(() => {
      waiting -= 1;
      if (waiting === 0) drop();
    });
  return drawn;
}

function drop(): void {
  hand?.stop();
  hand = null;
}
