import type { SiteLight, StoreyChange, Walker } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import { packLit } from '@eskovan/core/site';
import {
  drawWalkway,
  LightBake,
  packFooting,
  surveyModel,
  Walkway,
  type GatheredBlock,
  type Survey,
} from '@eskovan/core/survey';
import * as Comlink from 'comlink';
import type { PlacedFile } from '../picture/source.ts';
import { loadPlain } from './load-scene.ts';

/** Measures and lights a site. Two of these share the light; each keeps its own copy of the models. */
let site: SceneModel | null = null;
let measured: Survey | null = null;
let bake: LightBake | null = null;
let asked: readonly SiteLight[] = [];
let gathered: readonly GatheredBlock[] = [];

type Packed = Uint8Array<ArrayBuffer>;

interface Measured {
  survey: Survey;
  floor: Packed;
}

const api = {
  async load(models: readonly PlacedFile[]): Promise<void> {
    site = await loadPlain(models);
  },

  survey(walker: Walker, changes: readonly StoreyChange[], onProgress: (fraction: number) => void): Measured {
    const { survey, footing } = surveyModel(site!, walker, { changes, onProgress });
    measured = survey;
    const floor = packFooting(footing);
    return Comlink.transfer({ survey, floor }, [floor.buffer]);
  },

  /** The navigation mesh, and the survey with it drawn in; null where nothing can be walked on. */
  async walkway(walker: Walker): Promise<{ survey: Survey; bytes: Uint8Array<ArrayBuffer> } | null> {
    const walkway = await Walkway.build(site!, measured!, walker);
    return walkway && { survey: drawWalkway(measured!, walkway), bytes: Uint8Array.from(walkway.bytes()) };
  },

  /** Is a rough light of it there much sooner than the whole? */
  hasRoughLight(): boolean {
    return LightBake.hasRough(site!);
  },

  /** Number of vertices that need light. */
  prepareLight(lights: readonly SiteLight[], rough: boolean): number {
    asked = lights;
    bake = new LightBake(site!, lights, rough);
    return bake.count;
  },

  gather(from: number, to: number): GatheredBlock {
    const block = bake!.gather(from, to);
    const { direct, rays, met, hits } = block;
    return Comlink.transfer(block, [...direct.map(({ buffer }) => buffer), rays.buffer, met.buffer, hits.buffer]);
  },

  /** What all workers gathered, of which this one makes the lights. */
  takeGathered(blocks: readonly GatheredBlock[]): void {
    gathered = blocks;
  },

  /** The whole site in one of the lights, packed, and a glance of it where it is heavy; of lamps alone their light. */
  async finish(of: number): Promise<{ scene: Packed; glance: Packed | null }> {
    const packed = await packLit(bake!.finish(gathered, of), asked[of]!);
    return Comlink.transfer(packed, [packed.scene.buffer, ...(packed.glance ? [packed.glance.buffer] : [])]);
  },
};

export type SiteWorker = typeof api;
Comlink.expose(api);
