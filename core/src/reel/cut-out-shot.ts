import type { Rate, ShotBody } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { cutOutView, Projection } from '../optics/index.ts';
import { followCut, heldCut, wholePicture, type CutTrack } from './follow-cut.ts';
import { sourceTime, type PlannedShot } from './plan.ts';
import { sampleShot, type ShotCamera } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** Width over height of the pictures that moves and views were made for, and of those of a reel. */
export interface Ratios {
  whole: number;
  ratio: number;
}

const isWhole = ({ whole, ratio }: Ratios): boolean => Math.abs(whole - ratio) < 1e-6;

/** Where the cut-out of a shot lies: where it was put, else where its subject is. */
export function cutTrackOf(
  { body, planned, camera }: { body: Pick<ShotBody, 'use' | 'aside'>; planned: PlannedShot; camera: ShotCamera | null },
  rate: Rate,
  ratios: Ratios,
): CutTrack {
  if (!camera || isWhole(ratios)) return wholePicture;
  const seen = {
    seconds: frameTime(planned.frames, rate),
    sampleAt: (at: number) => sampleShot(body, planned, camera, at, rate),
    timeOf: (at: number) => sourceTime(planned, at),
  };
  const { whole, ratio } = ratios;
  return body.aside === undefined
    ? followCut(camera, seen, whole, ratio)
    : heldCut(body.aside, camera, seen, whole, ratio);
}

/** A picture of another ratio than the move was made for is a part of its picture. @param aside see {@link CutTrack} */
export function cutOutSample(sample: CameraSample, aside: number, ratios: Ratios): CameraSample {
  if (isWhole(ratios)) return sample;
  const { whole, ratio } = ratios;
  const { view, right } = cutOutView(sample.view, whole, ratio, aside);
  if (right === 0) return { ...sample, view };
  const on = new Projection(view, ratio, sample.position, sample.orientation).fromAxes([right, 0, 0]);
  return {
    ...sample,
    view,
    position: [sample.position[0] + on[0], sample.position[1] + on[1], sample.position[2] + on[2]],
  };
}
