import type { Rate, ShotBody } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { cutFlow, type CutFlow } from './cut-flow.ts';
import { imageFlow, NO_FLOW, type ImageFlow, type RayCast } from './flow.ts';
import type { PlannedShot } from './plan.ts';
import { sampleShot, type ShotCamera } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** A shot on its own: what it shows, how it is planned, and where its camera comes from. */
export interface OwnShot {
  body: ShotBody;
  planned: PlannedShot;
  camera: ShotCamera | null;
}

/** How the movement of shots is measured. */
export interface FlowMeasure {
  rate: Rate;
  /** Width over height of the pictures. */
  aspect: number;
  cast: RayCast;
}

/** The camera of a shot by its own frames; null for cards and pictures. */
const byFrames = ({ body, planned, camera }: OwnShot, rate: Rate): ((frame: number) => CameraSample) | null =>
  camera && ((frame) => sampleShot(body, planned, camera, frameTime(frame, rate), rate));

/** How the picture moves from one frame of a shot to the next. @param frame of the shot */
export function flowAtFrame(shot: OwnShot, frame: number, { rate, aspect, cast }: FlowMeasure): ImageFlow {
  const sampleAt = byFrames(shot, rate);
  if (!sampleAt) return NO_FLOW;
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
export const lastSample = (shot: OwnShot, rate: Rate): CameraSample | null =>
  byFrames(shot, rate)?.(shot.planned.frames - 1) ?? null;
export const firstSample = (shot: OwnShot, rate: Rate): CameraSample | null => byFrames(shot, rate)?.(0) ?? null;
