import * as Comlink from 'comlink';

/** A worker as the page holds it: what it can be asked, and how one learns that it will not answer any more. */
export interface Hand<W> {
  remote: Comlink.Remote<W>;
  /** Never comes, unless the worker breaks or is stopped: whoever waits for an answer waits for this as well. */
  stopped: Promise<never>;
  stop: () => void;
}

/** Takes hold of a worker. @param what it is, for the message of its end: “The worker that knows the ground” */
export function handOf<W>(worker: Worker, what: string): Hand<W> {
  let stop = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => {
      worker.terminate();
      reject(new Error(`${what} has stopped.`));
    };
    worker.addEventListener('error', stop);
  });
  stopped.catch(() => undefined);
  return { remote: Comlink.wrap<W>(worker), stopped, stop };
}
