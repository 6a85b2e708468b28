import * as Comlink from 'comlink';
import type { ImportResult, ImportWorker } from '../worker/import.worker.ts';
import { startWorker } from '../worker/start-worker.ts';

const makeWorker = () => startWorker('import');

let spare: Worker | null = null;

/** Starts a worker ahead of time: its code is loaded when a file is dropped. */
export const warmReader = (): void => void (spare ??= makeWorker());

/**
 * Reads a model file in a worker of its own, which ends with it.
 * @throws Error with words for people; AbortError when the signal is aborted
 */
export async function readFile(
  bytes: ArrayBuffer,
  fileName: string,
  signal: AbortSignal,
  onProgress: (fraction: number) => void,
): Promise<ImportResult> {
  const worker = spare ?? makeWorker();
  spare = null;
  const stopped = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
    worker.addEventListener('error', () =>
      reject(new Error(`${fileName}: reading it stopped; it may be too large for this machine.`)),
    );
  });
  try {
    const remote = Comlink.wrap<ImportWorker>(worker);
    return await Promise.race([
      remote.importModel(Comlink.transfer(bytes, [bytes]), fileName, Comlink.proxy(onProgress)),
      stopped,
    ]);
  } finally {
    worker.terminate();
  }
}
