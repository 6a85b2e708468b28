import type { SceneModel } from '../../format/index.ts';
import { bounceLight } from './bounce.ts';
import { Seams } from './seams.ts';
import { DARKEST, daylight, unlitLight } from './daylight.ts';
import { evenOut, fillBuried, joinOpen } from './even-out.ts';
import { Gatherer, LIGHT_CHANNELS, type GatheredBlock } from './gather.ts';
import { LightMesh, litTriangles } from './light-mesh.ts';
import type { SiteLight } from '../../document/index.ts';
import { AFTERNOON } from './site-light.ts';

/** Of more triangles a rough light is not there much sooner than the whole. */
const MOST_FOR_ROUGH = 130_000;

/**
 * Bakes light into vertices: sky through windows, sun, lamps, surfaces that glow, and what all of it does as it goes from
 * wall to wall. Several workers can share one bake: each makes the same `LightBake` and gathers other vertices; one of
 * them finishes. Several lights of one site are gathered together: their rays are the same. A rough bake, on larger
 * triangles and with few rays, is there soon.
 */
export class LightBake {
  /** Vertices to gather, all parts in a row. */
  readonly count: number;
  private readonly mesh: LightMesh;
  /** Made for the first rays: who only finishes shoots none. */
  private gatherer: Gatherer | null = null;
  /** Found for the first light that is finished: all lights have the same. */
  private seams: Seams | null = null;

  constructor(
    given: SceneModel,
    private readonly lights: readonly SiteLight[] = [AFTERNOON],
    private readonly rough = false,
  ) {
    this.mesh = new LightMesh(given, lights, rough ? 'roughly' : 'finely');
    this.count = this.mesh.count;
  }

  /** What falls on the vertices from…to − 1, and what their rays met. */
  gather(from: number, to: number): GatheredBlock {
    this.gatherer ??= new Gatherer(this.mesh, this.lights, this.rough);
    return this.gatherer.block(from, to);
  }

  /** Is a rough light worth its while? What is very large takes as long to show as to gather. */
  static hasRough = (model: SceneModel): boolean => litTriangles(model) <= MOST_FOR_ROUGH;

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
    const shown = unlitLight(this.lights[of]!);
    // A rough light knows no contacts: a face that goes on into another body is seen all the same.
    const rest = this.rough ? 'alike' : 'dark';
    const parts = this.mesh.parts.map(({ fine, unlit, first, contacts, start }) => {
      const size = fine.positions.length / 3;
      if (unlit)
        return { ...fine, light: { ambient: new Float32Array(3 * size).fill(shown), sun: new Float32Array(size) } };
      const own = new Float32Array(size * LIGHT_CHANNELS);
      for (let v = 0; v < size; v += 1) {
        const place = start + first[v]!;
        for (let k = 0; k < 3; k += 1) own[LIGHT_CHANNELS * v + k] = light[3 * place + k]!;
        own[LIGHT_CHANNELS * v + 3] = suns[place]!;
      }
      const shared = contacts ? joinOpen(own, first, contacts) : first;
      const even = evenOut(fine, fillBuried(fine, own, shared, contacts?.places, rest), shared);
      const ambient = new Float32Array(size * 3);
      const sun = new Float32Array(size);
      for (let v = 0; v < size; v += 1) {
        for (let k = 0; k < 3; k += 1)
          ambient[3 * v + k] = Math.max(even[LIGHT_CHANNELS * v + k]!, DARKEST * day.zenith[k]!);
        sun[v] = even[LIGHT_CHANNELS * v + 3]!;
      }
      return { ...fine, light: { ambient, sun } };
    });
    if (this.rough || this.mesh.asItCame) return { ...this.mesh.model, parts };
    this.seams ??= new Seams(parts);
    return { ...this.mesh.model, parts: this.seams.close(parts) };
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
