import type { SiteBody, StoreyChange, Vec3, Walker } from '@eskovan/core/document';
import type { GatheredBlock } from '@eskovan/core/survey';
import * as Comlink from 'comlink';
import { uploadFile } from '../data/api.ts';
import type { PlacedFile } from '../picture/source.ts';
import type { SiteWorker } from '../worker/site.worker.ts';
import type { SiteStep } from './site-state.ts';

interface SiteWish {
  models: readonly PlacedFile[];
  walker: Walker;
  /** What people corrected about the storeys. */
  changes: readonly StoreyChange[];
  sun: Vec3;
  /** Name of the light that is wanted, and a site that may have it already. */
  light: string;
  before: SiteBody | null;
  signal: AbortSignal;
  onProgress: (step: SiteStep, fraction: number) => void;
  /**
   * Called as soon as there are plans and floors, again with the navigation mesh, and again with the light; only once,
   * with everything, where the light is there already.
   */
  onSite: (site: SiteBody) => Promise<void>;
}

/** Vertices that a worker lights at a time: short enough for a smooth progress bar and an even share. */
const BLOCK = 1500;

/**
 * Measures and lights a site in two workers: one measures while the other prepares the light, then both bake.
 * @throws Error when a worker stops, an upload fails or the signal is aborted
 */
export async function computeSite(wish: SiteWish): Promise<void> {
  const { models, walker, changes, sun, light, before, signal, onProgress, onSite } = wish;
  const lit = before?.light === light && before.scene && !before.first ? before : null;
  const workers = ['site-1', 'site-2'].map(
    (name) => new Worker(new URL('../worker/site.worker.ts', import.meta.url), { type: 'module', name }),
  );
  const stopped = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
    for (const worker of workers)
      worker.addEventListener('error', (event) =>
        reject(new Error(event.message || 'Measuring the model stopped unexpectedly.')),
      );
  });
  const work = async () => {
    const [first, second] = workers.map((worker) => Comlink.wrap<SiteWorker>(worker)) as [
      Comlink.Remote<SiteWorker>,
      Comlink.Remote<SiteWorker>,
    ];
    onProgress('measure', 0);
    const prepared = lit ? Promise.resolve(null) : second.load(models).then(() => second.prepareLight(sun));
    // Its failure is reported where it is awaited.
    prepared.catch(() => {});
    await first.load(models);
    const { survey, floor } = await first.survey(
      walker,
      changes,
      Comlink.proxy((fraction: number) => onProgress('measure', fraction)),
    );
    onProgress('store', 0);
    const keepSurvey = (content: typeof survey) =>
      uploadFile(new Blob([JSON.stringify(content)]), 'application/json', { signal });
    let measured: SiteBody = {
      survey: await keepSurvey(survey),
      floor: await uploadFile(new Blob([floor]), 'application/octet-stream', { signal }),
      walkway: null,
      scene: null,
      glance: null,
      light,
      first: false,
      bounds: survey.bounds,
      triangles: survey.triangles,
      storeys: survey.storeys.map(({ name, elevation, area }) => ({ name, elevation, area })),
    };
    if (!lit) await onSite(measured);
    onProgress('walkway', 0);
    const walkway = await first.walkway(walker);
    if (walkway) {
      measured = {
        ...measured,
        survey: await keepSurvey(walkway.survey),
        walkway: await uploadFile(new Blob([walkway.bytes]), 'application/octet-stream', { signal }),
      };
      if (!lit) await onSite(measured);
    }
    if (lit) {
      // Where only walkers or storeys have changed the light stays. A site with its light counts as whole, so it is
      // kept once all of it is there.
      await onSite({ ...measured, scene: lit.scene, glance: lit.glance });
      return;
    }
    onProgress('light', 0);
    const [{ count, hasFirst }] = await Promise.all([first.prepareLight(sun), prepared]);
    const keep = (packed: Uint8Array<ArrayBuffer>) =>
      uploadFile(new Blob([packed]), 'application/octet-stream', { signal });
    /** Gathers all light in both workers; `from` and `to` are what it is of the whole work. */
    const gather = async (hurried: boolean, from: number, to: number): Promise<GatheredBlock[]> => {
      const blocks: GatheredBlock[] = [];
      let next = 0;
      let done = 0;
      const bake = async (worker: Comlink.Remote<SiteWorker>) => {
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
      return blocks;
    };
    const finish = async (blocks: GatheredBlock[], hurried: boolean) => {
      const buffers = blocks.flatMap(({ direct, rays, met, hits }) => [direct, rays, met, hits].map((a) => a.buffer));
      const { scene, glance } = await first.finish(Comlink.transfer(blocks, buffers));
      await onSite({ ...measured, scene: await keep(scene), glance: glance && (await keep(glance)), first: hurried });
    };
    if (hasFirst) await finish(await gather(true, 0, 0.2), true);
    await finish(await gather(false, hasFirst ? 0.2 : 0, 0.95), false);
  };
  try {
    await Promise.race([work(), stopped]);
  } finally {
    for (const worker of workers) worker.terminate();
  }
}
