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
/** What of the whole work on light the first, rough one is, and what is left when all rays are shot. */
const ROUGH = 0.2;
const SHOT = 0.9;

type SiteLink = Comlink.Remote<SiteWorker>;

/**
 * Measures and lights a site in two workers: one measures while the other prepares the light, then both bake.
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
    const asked = lights.map(({ light }) => light);
    const prepared =
      asked.length === 0
        ? Promise.resolve()
        : second.load(models).then(() => second.prepareLight(asked).then(() => {}));
    // Its failure is reported where it is awaited.
    prepared.catch(() => {});
    await first.load(models);
    if (!measured) await measure(first, wish);
    if (lights.length > 0) await lightUp(first, second, prepared, wish);
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

/** All missing lights: rays are shot once for all of them. */
async function lightUp(
  first: SiteLink,
  second: SiteLink,
  prepared: Promise<void>,
  { lights, signal, onProgress, onLit }: SiteWish,
): Promise<void> {
  onProgress('light', 0);
  const [{ count, hasFirst }] = await Promise.all([first.prepareLight(lights.map(({ light }) => light)), prepared]);
  /** Gathers all light in both workers; `from` and `to` are what it is of the whole work. */
  const gather = async (hurried: boolean, from: number, to: number): Promise<void> => {
    const blocks: GatheredBlock[] = [];
    let next = 0;
    let done = 0;
    const bake = async (worker: SiteLink) => {
      while (next < count && !signal.aborted) {
        const start = next;
        const end = Math.min(count, start + BLOCK);
        next = end;
        blocks.push(await worker.gather(start, end, hurried));
        done += end - start;
        onProgress('light', from + ((to - from) * done) / count);
      }
    };
    await Promise.all([bake(first), bake(second)]);
    const buffers = blocks.flatMap(({ direct, rays, met, hits }) =>
      [...direct, rays, met, hits].map(({ buffer }) => buffer),
    );
    await first.takeGathered(Comlink.transfer(blocks, buffers));
  };
  const finish = async (of: number, hurried: boolean) => {
    const { scene, glance } = await first.finish(of);
    await onLit(lights[of]!.key, {
      scene: await keepPacked(scene, signal),
      glance: glance && (await keepPacked(glance, signal)),
      first: hurried,
    });
  };
  // Of lamps alone nothing is shown until the whole is known.
  const rough = hasFirst && lights[0]!.light.sky !== 'dark';
  if (rough) {
    await gather(true, 0, ROUGH);
    await finish(0, true);
  }
  await gather(false, rough ? ROUGH : 0, SHOT);
  for (let of = 0; of < lights.length; of += 1) {
    await finish(of, false);
    onProgress('light', SHOT + ((1 - SHOT) * (of + 1)) / lights.length);
  }
}

const keepPacked = (packed: Uint8Array<ArrayBuffer>, signal: AbortSignal): Promise<FileRef> =>
  uploadFile(new Blob([packed]), 'application/octet-stream', { signal });
