import type { SceneModel } from '../../format/index.ts';
import { bounceLight } from './bounce.ts';
import { DARKEST, daylight } from './daylight.ts';
import { evenOut, fillBuried, joinOpen } from './even-out.ts';
import { Gatherer, LIGHT_CHANNELS, type GatheredBlock } from './gather.ts';
import { LightMesh } from './light-mesh.ts';
import type { SiteLight } from '../../document/index.ts';
import { AFTERNOON } from './site-light.ts';

/** Vertices up to which a first light is shown. */
const MOST_FOR_FIRST = 250_000;

/**
 * Bakes light into vertices: sky through windows, sun, lamps, surfaces that glow, and what all of it does as it goes from
 * wall to wall. Several workers can share one bake: each makes the same `LightBake` and gathers other vertices; one of
 * them finishes. Several lights of one site are gathered together: their rays are the same.
 */
export class LightBake {
  /** Vertices to gather, all parts in a row. */
  readonly count: number;
  private readonly mesh: LightMesh;
  /** Made for the first rays: who only finishes shoots none. */
  private gatherer: Gatherer | null = null;

  constructor(
    given: SceneModel,
    private readonly lights: readonly SiteLight[] = [AFTERNOON],
  ) {
    this.mesh = new LightMesh(given, lights);
    this.count = this.mesh.count;
  }

  /** What falls on the vertices from…to − 1, and what their rays met. @param first roughly: to be seen soon */
  gather(from: number, to: number, first = false): GatheredBlock {
    this.gatherer ??= new Gatherer(this.mesh, this.lights);
    return this.gatherer.block(from, to, first);
  }

  /** Is a first light worth its while? What is very large takes as long to show as to gather. */
  get hasFirst(): boolean {
    return this.count <= MOST_FOR_FIRST;
  }

  /**
   * The model on finer triangles, every part with its `light`.
   * @param blocks what `gather` gave for all vertices
   * @param of number of the light
   */
  finish(blocks: readonly GatheredBlock[], of = 0): SceneModel {
    const day = daylight(this.lights[of]!);
    const light = bounceLight(this.mesh, blocks, day.sun, of);
    const suns = new Float32Array(this.count);
    for (const { from, direct, rays } of blocks)
      for (let i = 0; i < rays.length; i += 1) suns[from + i] = direct[of]![LIGHT_CHANNELS * i + 3]!;
    const parts = this.mesh.parts.map(({ fine, first, contacts, start }) => {
      const size = fine.positions.length / 3;
      const own = new Float32Array(size * LIGHT_CHANNELS);
      for (let v = 0; v < size; v += 1) {
        const place = start + first[v]!;
        for (let k = 0; k < 3; k += 1) own[LIGHT_CHANNELS * v + k] = light[3 * place + k]!;
        own[LIGHT_CHANNELS * v + 3] = suns[place]!;
      }
      const shared = contacts ? joinOpen(own, first, contacts) : first;
      const even = evenOut(fine, fillBuried(fine, own, shared, contacts?.places), shared);
      const ambient = new Float32Array(size * 3);
      const sun = new Float32Array(size);
      for (let v = 0; v < size; v += 1) {
        for (let k = 0; k < 3; k += 1)
          ambient[3 * v + k] = Math.max(even[LIGHT_CHANNELS * v + k]!, DARKEST * day.zenith[k]!);
        sun[v] = even[LIGHT_CHANNELS * v + 3]!;
      }
      return { ...fine, light: { ambient, sun } };
    });
    return { ...this.mesh.model, parts };
  }
}

/** The whole bake in one go. `onProgress` is told 0…1. */
export function bakeLight(
  model: SceneModel,
  light: SiteLight = AFTERNOON,
  onProgress: (part: number) => void = () => {},
): SceneModel {
  const bake = new LightBake(model, [light]);
  const blocks: GatheredBlock[] = [];
  const step = 2000;
  for (let from = 0; from < bake.count; from += step) {
    const to = Math.min(bake.count, from + step);
    blocks.push(bake.gather(from, to));
    onProgress(to / bake.count);
  }
  return bake.finish(blocks);
}
