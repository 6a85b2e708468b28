import type { FileRef, LitBody, SiteBody, SiteLight, StoreyChange, Walker } from '@eskovan/core/document';
import type { GatheredBlock } from '@eskovan/core/survey';
import * as Comlink from 'comlink';
import { uploadFile } from '../data/api.ts';
import type { PlacedFile } from '../picture/source.ts';
import type { SiteWorker } from '../worker/site.worker.ts';
import type { SiteStep } from './site-state.ts';
import { startWorker } from '../worker/start-worker.ts';

interface SiteWish {
  models: readonly PlacedFile[];
  walker: Walker;
  /** What people corrected about the storeys. */
  changes: readonly StoreyChange[];
  /** Is the site measured already? */
  measured: boolean;
  /** Lights that are missing, by name, the one that somebody looks at first. */
  lights: readonly { key: string; light: SiteLight }[];
  signal: AbortSignal;
  onProgress: (step: SiteStep, fraction: number) => void;
  /** Called as soon as there are plans and floors, and again with the navigation mesh. */
  onSite: (site: SiteBody) => Promise<void>;
  /** Called with every light, with the first one twice where a rough one is to be had soon. */
  onLit: (key: string, lit: LitBody) => Promise<void>;
}

/** Vertices that a worker lights at a time: short enough for a smooth progress bar and an even share. */
const BLOCK = 1500;
/** What of the work on light is done when all rays are shot. */
const SHOT = 0.9;

type SiteLink = Comlink.Remote<SiteWorker>;

/**
 * Measures and lights a site in two workers: one measures while the other makes a rough light, then both make the whole.
 * @throws Error when a worker stops, an upload fails or the signal is aborted
 */
export async function computeSite(wish: SiteWish): Promise<void> {
  const { models, measured, lights, signal } = wish;
  const workers = ['one', 'two'].map((which) => startWorker('site', which));
  const stopped = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
    for (const worker of workers)
      worker.addEventListener('error', (event) =>
        reject(new Error(event.message || 'Measuring the model stopped unexpectedly.')),
      );
  });
  const work = async () => {
    const [first, second] = workers.map((worker) => Comlink.wrap<SiteWorker>(worker)) as [SiteLink, SiteLink];
    const lightSoon = lights.length > 0 ? second.load(models).then(() => roughLight(second, wish)) : Promise.resolve();
    // Its failure is reported where it is awaited.
    lightSoon.catch(() => {});
    await first.load(models);
    if (!measured) await measure(first, wish);
    if (lights.length > 0) await wholeLight(first, second, lightSoon, wish);
  };
  try {
    await Promise.race([work(), stopped]);
  } finally {
    for (const worker of workers) worker.terminate();
  }
}

/** Plans, floors and the navigation mesh. */
async function measure(worker: SiteLink, { walker, changes, signal, onProgress, onSite }: SiteWish): Promise<void> {
  onProgress('measure', 0);
  const { survey, floor } = await worker.survey(
    walker,
    changes,
    Comlink.proxy((fraction: number) => onProgress('measure', fraction)),
  );
  onProgress('store', 0);
  const keepSurvey = (content: typeof survey) =>
    uploadFile(new Blob([JSON.stringify(content)]), 'application/json', { signal });
  const site: SiteBody = {
    survey: await keepSurvey(survey),
    floor: await keepPacked(floor, signal),
    walkway: null,
    first: true,
    bounds: survey.bounds,
    triangles: survey.triangles,
    storeys: survey.storeys.map(({ name, elevation, area }) => ({ name, elevation, area })),
  };
  await onSite(site);
  onProgress('walkway', 0);
  const walkway = await worker.walkway(walker);
  await onSite({
    ...site,
    first: false,
    ...(walkway && {
      survey: await keepSurvey(walkway.survey),
      walkway: await keepPacked(walkway.bytes, signal),
    }),
  });
}

/** A rough version of the light that somebody looks at, by one worker, where it is there much sooner than the whole. */
async function roughLight(worker: SiteLink, wish: SiteWish): Promise<void> {
  const { light } = wish.lights[0]!;
  // Of lamps alone nothing is shown until the whole is known.
  if (light.sky === 'dark' || !(await worker.hasRoughLight())) return;
  await gather([worker], await worker.prepareLight([light], true), wish, () => {});
  await finish(worker, wish, 0, true);
}

/**
 * All missing lights: rays are shot once for all of them.
 * @param free settled once the second worker has nothing else to do
 */
async function wholeLight(first: SiteLink, second: SiteLink, free: Promise<void>, wish: SiteWish): Promise<void> {
  const { lights, onProgress } = wish;
  const asked = lights.map(({ light }) => light);
  onProgress('light', 0);
  const [count] = await Promise.all([
    first.prepareLight(asked, false),
    free.then(() => second.prepareLight(asked, false)),
  ]);
  await gather([first, second], count, wish, (done) => onProgress('light', SHOT * done));
  for (let of = 0; of < lights.length; of += 1) {
    await finish(first, wish, of, false);
    onProgress('light', SHOT + ((1 - SHOT) * (of + 1)) / lights.length);
  }
}

/** Gathers the light of so many vertices in all workers, and hands it to the first of them. @param tell 0…1 */
async function gather(
  workers: readonly SiteLink[],
  count: number,
  { signal }: SiteWish,
  tell: (done: number) => void,
): Promise<void> {
  const blocks: GatheredBlock[] = [];
  let next = 0;
  let done = 0;
  const bake = async (worker: SiteLink) => {
    while (next < count && !signal.aborted) {
      const start = next;
      const end = Math.min(count, start + BLOCK);
      next = end;
      blocks.push(await worker.gather(start, end));
      done += end - start;
      tell(done / count);
    }
  };
  await Promise.all(workers.map(bake));
  const buffers = blocks.flatMap(({ direct, rays, met, hits, through, throughHits, throughWeights }) =>
    [...direct, rays, met, hits, through, throughHits, throughWeights].map(({ buffer }) => buffer),
  );
  await workers[0]!.takeGathered(Comlink.transfer(blocks, buffers));
}

/** Makes one of the lights from what was gathered, and keeps it. */
async function finish(
  worker: SiteLink,
  { lights, signal, onLit }: SiteWish,
  of: number,
  rough: boolean,
): Promise<void> {
  const { scene, glance } = await worker.finish(of);
  await onLit(lights[of]!.key, {
    scene: await keepPacked(scene, signal),
    glance: glance && (await keepPacked(glance, signal)),
    first: rough,
  });
}

const keepPacked = (packed: Uint8Array<ArrayBuffer>, signal: AbortSignal): Promise<FileRef> =>
  uploadFile(new Blob([packed]), 'application/octet-stream', { signal });
