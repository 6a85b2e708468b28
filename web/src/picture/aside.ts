import { whileNobodyMoves } from './client.ts';
import { turns } from './in-turn.ts';
import type { FilmWorker } from '../worker/film.worker.ts';
import { handOf, type Hand } from '../worker/hand.ts';
import type { AsideWish } from './source.ts';
import { startWorker } from '../worker/start-worker.ts';

const inTurn = turns();
let waiting = 0;
let hand: Hand<FilmWorker> | null = null;

/**
 * Draws a picture beside the one that is shown, in a worker of its own: one after the other, while nobody moves about.
 * The worker goes when nothing waits for it any more.
 */
export function drawAside(wish: AsideWish): Promise<Blob> {
  waiting += 1;
  return inTurn(async () => {
    await whileNobodyMoves();
    hand ??= handOf(startWorker('film', 'aside'), 'The worker of small pictures');
    try {
      return await Promise.race([hand.remote.small(wish), hand.stopped]);
    } catch (error) {
      drop();
      throw error;
    } finally {
      waiting -= 1;
      if (waiting === 0) drop();
    }
  });
}

function drop(): void {
  hand?.stop();
  hand = null;
}
