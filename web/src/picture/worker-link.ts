import * as Comlink from 'comlink';
import type { PictureWorker } from '../worker/picture.worker.ts';
import { startWorker } from '../worker/start-worker.ts';

let link: Comlink.Remote<PictureWorker> | null = null;
let fail: (error: Error) => void;
const failure = new Promise<never>((_, reject) => (fail = reject));
// Told where something is waited for.
failure.catch(() => {});

/** A worker that could not start, or that has stopped, answers nothing: whoever waits for it is told. */
export const orFailed = <T>(answer: Promise<T>): Promise<T> => Promise.race([answer, failure]);

const renewals = new Set<() => void>();

/** Tells when the graphics card is back after it was lost. */
export const onRenewed = (tell: () => void): void => void renewals.add(tell);

/** The one worker that draws pictures; started when it is first asked for. */
export function pictureWorker(): Comlink.Remote<PictureWorker> {
  if (link) return link;
  const worker = startWorker('picture');
  worker.addEventListener('error', () => fail(new Error('The worker of the picture has stopped.')));
  link = Comlink.wrap<PictureWorker>(worker);
  void link.onRenewed(Comlink.proxy(() => renewals.forEach((tell) => tell())));
  return link;
}
