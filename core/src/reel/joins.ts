import type { Rate, ShotBody } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { clipFlow, type ClipMotion } from './clip-motion.ts';
import { cutFlow, type CutFlow } from './cut-flow.ts';
import { imageFlow, NO_FLOW, type ImageFlow, type RayCast } from './flow.ts';
import { cutOutSample, cutTrackOf, type Ratios } from './cut-out-shot.ts';
import type { CutTrack } from './follow-cut.ts';
import { sourceTime, type PlannedShot } from './plan.ts';
import { sampleShot, type ShotCamera } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** A shot on its own: what it shows, how it is planned, and where its camera comes from. */
export interface OwnShot {
  body: ShotBody;
  planned: PlannedShot;
  camera: ShotCamera | null;
  /** How its pictures move, where it is a clip that has been looked at. */
  motion?: ClipMotion | null;
}

/** How the movement of shots is measured. */
export interface FlowMeasure {
  rate: Rate;
  /** Width over height of the pictures that are shown. */
  aspect: number;
  /** And of those that moves and views were made for, where it is another. */
  whole?: number;
  cast: RayCast;
}

const tracks = new WeakMap<OwnShot, { of: string; track: CutTrack }>();

/** Where the cut-out of a shot lies, worked out once. */
function trackOf(shot: OwnShot, rate: Rate, ratios: Ratios): CutTrack {
  const of = JSON.stringify([rate, ratios]);
  const known = tracks.get(shot);
  if (known?.of === of) return known.track;
  const track = cutTrackOf(shot, rate, ratios);
  tracks.set(shot, { of, track });
  return track;
}

/** The camera of a shot by its own frames, as it is shown; null for what has none. */
function byFrames(shot: OwnShot, measure: FlowMeasure): ((frame: number) => CameraSample) | null {
  const { body, planned, camera } = shot;
  if (!camera) return null;
  const { rate, aspect, whole = aspect } = measure;
  const ratios = { whole, ratio: aspect };
  const track = trackOf(shot, rate, ratios);
  return (frame) => {
    const seconds = frameTime(frame, rate);
    return cutOutSample(sampleShot(body, planned, camera, seconds, rate), track.at(seconds), ratios);
  };
}

/** How the picture moves from one frame of a shot to the next. @param frame of the shot */
export function flowAtFrame(shot: OwnShot, frame: number, measure: FlowMeasure): ImageFlow {
  const { rate, aspect, cast } = measure;
  const sampleAt = byFrames(shot, measure);
  if (!sampleAt) {
    const { motion, planned } = shot;
    const { speed, backwards } = planned;
    const time = sourceTime(planned, frameTime(frame, rate));
    return motion ? clipFlow(motion, time, backwards ? -speed : speed, aspect) : NO_FLOW;
  }
  const step = frameTime(1, rate);
  return imageFlow((time) => sampleAt(time / step), frame * step, step, aspect, cast);
}

/** How the picture moves over the last step of a shot, before what it shares with the next one. */
export const endFlow = (shot: OwnShot, shared: number, measure: FlowMeasure): ImageFlow =>
  // The last frame is seen until the next one comes: the step to it is the last that is seen.
  flowAtFrame(shot, Math.max(0, shot.planned.frames - shared - 2), measure);

/** How the picture moves over the first step of a shot, after what it shares with the one before. */
export const startFlow = (shot: OwnShot, shared: number, measure: FlowMeasure): ImageFlow =>
  flowAtFrame(shot, Math.min(shared, Math.max(0, shot.planned.frames - 2)), measure);

/** How movement carries from one shot to the next. */
export function flowOverJoin(before: OwnShot, after: OwnShot, measure: FlowMeasure): CutFlow {
  const shared = after.planned.overlap;
  return cutFlow(endFlow(before, shared, measure), startFlow(after, shared, measure));
}

/** The camera on the last frame of a shot, and on its first. */
export const lastSample = (shot: OwnShot, measure: FlowMeasure): CameraSample | null =>
  byFrames(shot, measure)?.(shot.planned.frames - 1) ?? null;
export const firstSample = (shot: OwnShot, measure: FlowMeasure): CameraSample | null =>
  byFrames(shot, measure)?.(0) ?? null;
