import type { ShotBody } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { cutOutView, Projection } from '../optics/index.ts';
import { blendSamples, canBlend } from './blend.ts';
import { followCut, heldCut, type CutTrack } from './follow-cut.ts';
import { shownAt, sourceTime, type PlannedShot, type ReelPlan, type ShownAt } from './plan.ts';
import { sampleShot, type ShotCamera } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** A shot with what it takes its pictures from; null for cards and pictures, and for what is gone. */
export interface ReelShot {
  id: string;
  body: Pick<ShotBody, 'use' | 'aside'>;
  camera: ShotCamera | null;
  /** Its camera goes with what moves by itself, so that has to be where it is in its move, whatever the reel's time is. */
  tied?: boolean;
}

/** One picture over those below it. */
export interface Layer {
  /** The shot whose scene, card or picture it is. */
  shot: string;
  /** Null for cards and pictures. */
  sample: CameraSample | null;
  /** How much of it is seen over what lies below, 0…1. */
  part: number;
}

/** What a frame of a reel is made of, from the bottom up. */
export interface ReelFrame {
  layers: readonly Layer[];
  veil: ShownAt['veil'];
}

export interface ReelMaking {
  /** Width over height of the pictures that moves and views were made for, and of those of the reel. */
  whole: number;
  ratio: number;
  /** What moves by itself goes on through the whole reel. */
  throughout?: boolean;
  /** Do two shots show one and the same scene, in one light, at two instants of it? Then one picture is enough. */
  alike: (a: string, b: string, timesDiffer: boolean) => boolean;
}

/**
 * A reel ready to be asked for any frame. One frame is one shot, unless two share it: a camera that the one becomes the
 * other, or pictures over each other.
 */
export class CompiledReel {
  private readonly shots: ReadonlyMap<string, ReelShot>;
  private readonly cuts = new Map<string, CutTrack>();

  constructor(
    readonly plan: ReelPlan,
    shots: readonly ReelShot[],
    private readonly making: ReelMaking,
  ) {
    this.shots = new Map(shots.map((shot) => [shot.id, shot]));
  }

  /** seconds */
  get duration(): number {
    return frameTime(this.plan.frames, this.plan.rate);
  }

  /** @param frame perhaps between two: while the shutter is open */
  frameAt(frame: number): ReelFrame {
    const shown = shownAt(this.plan, frame);
    if (!shown) return { layers: [], veil: null };
    const { shot, next, veil } = shown;
    const below = this.layerOf(shot, frame, 1);
    if (!next) return { layers: [below], veil };
    return { layers: this.joined(below, this.layerOf(next.shot, frame, next.part), next), veil };
  }

  /** What two shots that share a frame make of it. */
  private joined(below: Layer, above: Layer, next: NonNullable<ShownAt['next']>): Layer[] {
    const [a, b] = [below.sample, above.sample];
    if (next.shot.join?.kind !== 'blend' || !a || !b || !canBlend(a.view, b.view)) return [below, above];
    const one = blendSamples(a, b, next.part);
    if (this.making.alike(below.shot, above.shot, a.siteTime !== b.siteTime)) return [{ ...below, sample: one }];
    // One camera, seen in the light and at the time of either.
    return [
      { ...below, sample: { ...one, siteTime: a.siteTime } },
      { ...above, sample: { ...one, siteTime: b.siteTime } },
    ];
  }

  private layerOf(planned: PlannedShot, frame: number, part: number): Layer {
    return { shot: planned.id, part, sample: this.cameraOf(planned, frame) };
  }

  /** The camera of one shot alone, whatever it is joined with. @param frame of the reel; may lie a little outside the shot */
  cameraOf(planned: PlannedShot, frame: number): CameraSample | null {
    const shot = this.shots.get(planned.id);
    if (!shot?.camera) return null;
    const { rate } = this.plan;
    const seconds = frameTime(frame - planned.start, rate);
    const sample = this.cutOut(shot, planned, sampleShot(shot.body, planned, shot.camera, seconds, rate), seconds);
    return this.making.throughout && !shot.tied ? { ...sample, siteTime: frameTime(frame, rate) } : sample;
  }

  /** A picture of another ratio than the move was made for is a part of its picture. */
  private cutOut(shot: ReelShot, planned: PlannedShot, sample: CameraSample, seconds: number): CameraSample {
    const { whole, ratio } = this.making;
    if (Math.abs(whole - ratio) < 1e-6) return sample;
    const { view, right } = cutOutView(sample.view, whole, ratio, this.cutOf(planned).at(seconds));
    if (right === 0) return { ...sample, view };
    const aside = new Projection(view, ratio, sample.position, sample.orientation).fromAxes([right, 0, 0]);
    return {
      ...sample,
      view,
      position: [sample.position[0] + aside[0], sample.position[1] + aside[1], sample.position[2] + aside[2]],
    };
  }

  /** Where the cut-out of a shot lies, worked out when first asked. */
  cutOf(planned: PlannedShot): CutTrack {
    const before = this.cuts.get(planned.id);
    if (before) return before;
    const track = this.makeCut(planned);
    this.cuts.set(planned.id, track);
    return track;
  }

  private makeCut(planned: PlannedShot): CutTrack {
    const { whole, ratio } = this.making;
    const shot = this.shots.get(planned.id);
    if (shot?.body.aside !== undefined) return heldCut(shot.body.aside);
    const camera = shot?.camera;
    if (!shot || !camera || Math.abs(whole - ratio) < 1e-6) return heldCut(0);
    const { rate } = this.plan;
    return followCut(
      camera,
      {
        seconds: frameTime(planned.frames, rate),
        sampleAt: (at) => sampleShot(shot.body, planned, camera, at, rate),
        timeOf: (at) => sourceTime(planned, at),
      },
      whole,
      ratio,
    );
  }

  /** What one shot looks at, and what it is. */
  shotOf(id: string): ReelShot | null {
    return this.shots.get(id) ?? null;
  }
}
