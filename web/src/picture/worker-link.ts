import * as Comlink from 'comlink';
import type { PictureWorker } from '../worker/picture.worker.ts';

let link: Comlink.Remote<PictureWorker> | null = null;

/** The one worker that draws pictures; started when it is first asked for. */
export function pictureWorker(): Comlink.Remote<PictureWorker> {
  link ??= Comlink.wrap<PictureWorker>(
    new Worker(new URL('../worker/picture.worker.ts', import.meta.url), { type: 'module', name: 'picture' }),
  );
  return link;
}
