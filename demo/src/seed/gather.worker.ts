import { parentPort, workerData } from 'node:worker_threads';
import type { SceneModel } from '@eskovan/core/format';
import type { SiteLight } from '@eskovan/core/document';
import { LightBake } from '@eskovan/core/survey';

/** What one thread gathers of the light of a site. */
export interface GatherOrder {
  site: SceneModel;
  lights: readonly SiteLight[];
  /** Which of so many equal ranges of vertices is its own. */
  share: number;
  shares: number;
}

const { site, lights, share, shares } = workerData as GatherOrder;
const bake = new LightBake(site, lights);
const [from, to] = [share, share + 1].map((n) => Math.round((bake.count * n) / shares)) as [number, number];
parentPort!.postMessage(bake.gather(from, to));
