import type { ShotBody } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { blendSamples, canBlend } from './blend.ts';
import { cutOutSample, cutTrackOf, type Ratios } from './cut-out-shot.ts';
import { wholePicture, type CutTrack } from './follow-cut.ts';
import { shownAt, sourceTime, type PlannedShot, type ReelPlan, type ShownAt } from './plan.ts';
import { sampleShot, type ShotCamera } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** A shot with what it takes its pictures from; null for cards, pictures and clips, and for what is gone. */
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
  /** Null for what has no camera: cards, pictures and clips. */
  sample: CameraSample | null;
  /** Seconds into its source: what a clip shows. */
  sourceTime: number;
  /** How much of it is seen over what lies below, 0…1. */
  part: number;
}

/** What a frame of a reel is made of, from the bottom up. */
export interface ReelFrame {
  layers: readonly Layer[];
  veil: ShownAt['veil'];
}

export interface ReelMaking extends Ratios {
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
    const { start, from, to } = planned;
    const time = sourceTime(planned, frameTime(frame - start, this.plan.rate));
    return {
      shot: planned.id,
      part,
      sample: this.cameraOf(planned, frame),
      sourceTime: Math.min(to, Math.max(from, time)),
    };
  }

  /** The camera of one shot alone, whatever it is joined with. @param frame of the reel; may lie a little outside the shot */
  cameraOf(planned: PlannedShot, frame: number): CameraSample | null {
    const shot = this.shots.get(planned.id);
    if (!shot?.camera) return null;
    const { rate } = this.plan;
    const seconds = frameTime(frame - planned.start, rate);
    const whole = sampleShot(shot.body, planned, shot.camera, seconds, rate);
    const sample = cutOutSample(whole, this.cutOf(planned).at(seconds), this.making);
    return this.making.throughout && !shot.tied ? { ...sample, siteTime: frameTime(frame, rate) } : sample;
  }

  /** When what is looked at is outside the cut-out of a shot: seconds of the reel. */
  outsideOf(planned: PlannedShot): (readonly [from: number, to: number])[] {
    const start = frameTime(planned.start, this.plan.rate);
    return this.cutOf(planned).outside.map(([from, to]) => [start + from, start + to] as const);
  }

  /** Where the cut-out of a shot lies, worked out when first asked. */
  cutOf(planned: PlannedShot): CutTrack {
    const before = this.cuts.get(planned.id);
    if (before) return before;
    const shot = this.shots.get(planned.id);
    const track = shot ? cutTrackOf({ ...shot, planned }, this.plan.rate, this.making) : wholePicture;
    this.cuts.set(planned.id, track);
    return track;
  }
}
