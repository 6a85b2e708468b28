import type { SiteLight } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import type { CameraSample } from '@eskovan/core/move';
import { Projection } from '@eskovan/core/optics';
import { emptyGather, PixelLight, type PixelGather } from '@eskovan/core/survey';

/** What is gathered: for which camera, at what size and with how many rays a pixel. */
export interface GatherTask {
  lit: SceneModel;
  light: SiteLight;
  sample: CameraSample;
  width: number;
  height: number;
  rays: number;
}

/** One thread's share of a gather: it works on any rows it is given, and has the whole scene for it. */
export class GatherShare {
  readonly gather: PixelGather;
  private readonly pixels: PixelLight;
  private readonly projection: Projection;

  constructor(private readonly task: GatherTask) {
    const { lit, light, sample, width, height } = task;
    this.gather = emptyGather(width, height);
    this.pixels = new PixelLight(lit, light);
    this.projection = new Projection(sample.view, width / height, sample.position, sample.orientation);
  }

  /** Gathers the rows from…to − 1. */
  rows(from: number, to: number): void {
    this.pixels.rows(this.projection, this.gather, this.task.rays, from, to);
  }
}
