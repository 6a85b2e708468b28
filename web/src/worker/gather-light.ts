import type { SiteLight } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import type { CameraSample } from '@eskovan/core/move';
import { putRows, smoothGather, type PixelGather } from '@eskovan/core/survey';
import type { PictureSize } from '@eskovan/render';
import * as Comlink from 'comlink';
import { GatherShare, type GatherTask } from './gather-share.ts';
import type { GatherWorker } from './gather.worker.ts';
import { startWorker } from './start-worker.ts';

/** Stills of so many passes are worth gathering light once more, pixel by pixel. */
export const GATHERED_FROM = 32;
/** Rays for a whole picture, about: a large one has fewer a pixel, which the filter makes up for. */
const RAYS = 9_000_000;
const FEWEST = 16;
const MOST = 64;
/** What of the work on a still gathering is; the rest is drawing. */
const SHARE = 0.6;
/** Rows that are gathered before somebody is told. */
const ROWS = 6;
/** Threads beyond this one that are worth a copy of the scene. */
const HELPERS = 3;

/** Gathers light for a still at half its size: what it adds is soft. The baked model, not what is left out of it, sends it. */
export async function gatherLight(
  lit: SceneModel,
  light: SiteLight,
  sample: CameraSample,
  size: PictureSize,
  onProgress: (done: number) => void,
): Promise<PixelGather> {
  const [width, height] = [Math.ceil(size.width / 2), Math.ceil(size.height / 2)];
  const rays = Math.min(MOST, Math.max(FEWEST, Math.round(RAYS / (width * height))));
  // Pictures on surfaces are not read: they need not be carried over.
  const task: GatherTask = { lit: { ...lit, textures: [] }, light, sample, width, height, rays };
  const waiting = Array.from({ length: Math.ceil(height / ROWS) }, (_, i) => ROWS * i);
  let done = 0;
  const tell = () => onProgress((SHARE * (done += ROWS)) / height);
  const helpers = Array.from({ length: Math.min(HELPERS, navigator.hardwareConcurrency - 1) }, () => startHelper());
  // A turn later: helpers have been given theirs by then, and build it at the same time.
  const share = new Promise<void>((resolve) => setTimeout(resolve)).then(() => new GatherShare(task));

  /** Works itself, and lets messages in and out between. */
  const own = async () => {
    const mine = await share;
    for (let row = waiting.shift(); row !== undefined; row = waiting.shift()) {
      mine.rows(row, Math.min(height, row + ROWS));
      tell();
      await new Promise((resolve) => setTimeout(resolve));
    }
    return mine.gather;
  };
  /** A helper that stops, stops helping: its rows are done here. */
  const help = async ({ link, stopped }: Helper) => {
    let row: number | undefined;
    try {
      await Promise.race([link.take(task), stopped]);
      const { gather } = await share;
      for (row = waiting.shift(); row !== undefined; row = waiting.shift()) {
        putRows(gather, await Promise.race([link.rows(row, Math.min(height, row + ROWS)), stopped]), row);
        tell();
      }
    } catch {
      if (row !== undefined) waiting.push(row);
    }
  };
  try {
    await Promise.all([own(), ...helpers.map(help)]);
    const gather = await own();
    smoothGather(gather);
    return gather;
  } finally {
    for (const { worker } of helpers) worker.terminate();
  }
}

interface Helper {
  worker: Worker;
  link: Comlink.Remote<GatherWorker>;
  stopped: Promise<never>;
}

function startHelper(): Helper {
  const worker = startWorker('gather');
  const stopped = new Promise<never>((_, reject) =>
    worker.addEventListener('error', () => reject(new Error('A helper stopped.'))),
  );
  // It may stop when nobody waits for it.
  stopped.catch(() => {});
  return { worker, link: Comlink.wrap<GatherWorker>(worker), stopped };
}
