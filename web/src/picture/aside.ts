import * as Comlink from 'comlink';
import { whileNobodyMoves } from './client.ts';
import type { FilmWorker } from '../worker/film.worker.ts';
import type { AsideWish } from './source.ts';

let last: Promise<unknown> = Promise.resolve();
let waiting = 0;
let worker: Worker | null = null;
let link: Comlink.Remote<FilmWorker> | null = null;

/**
 * Draws a picture beside the one that is shown, in a worker of its own: one after the other, while nobody moves about.
 * The worker goes when nothing waits for it any more.
 */
export function drawAside(wish: AsideWish): Promise<Blob> {
  waiting += 1;
  const drawn = last.then(async () => {
    await whileNobodyMoves();
    worker ??= new Worker(new URL('../worker/film.worker.ts', import.meta.url), { type: 'module', name: 'aside' });
    link ??= Comlink.wrap<FilmWorker>(worker);
    const stopped = new Promise<never>((_, reject) =>
      worker!.addEventListener('error', () => reject(new Error('The worker of small pictures has stopped.')), {
        once: true,
      }),
    );
    try {
      return await Promise.race([link.small(wish), stopped]);
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
  worker?.terminate();
  worker = null;
  link = null;
}
