import type { Anchor, Bounds, Lens, Pose, Quaternion, Vec3, WayAnchor } from '../document/index.ts';
import { throughLens, type CameraView } from '../optics/index.ts';
import type { Channel } from '../track/index.ts';
import type { GazeOff } from './gaze-off.ts';
import type { FloorGap } from './floor-line.ts';
import type { Obstacle } from './in-the-way.ts';

/** What the camera is at one instant. Picture, checks, reel, render and export read this and nothing else. */
export interface CameraSample {
  /** metres */
  position: Vec3;
  /** Unit quaternion with continuous sign; roll included. */
  orientation: Quaternion;
  view: CameraView;
  /** Seconds into the move. */
  moveTime: number;
  /** Seconds of the site: where moving objects are. */
  siteTime: number;
  /** Lighter or darker than the project's pictures, in stops. */
  exposure: number;
}

/** A camera that stands: a kept view, or an eye that looks about. @param time of the site, seconds */
export const standing = ({ position, orientation }: Pose, lens: Lens, time = 0): CameraSample => ({
  position,
  orientation,
  view: throughLens(lens),
  moveTime: time,
  siteTime: time,
  exposure: lens.exposure ?? 0,
});

/**
 * Numbers per sample in the batch form: position (3), orientation (4), focal length in mm, distance that is sharp in
 * metres and f-number (Infinity where everything is sharp), exposure.
 */
export const SAMPLE_STRIDE = 11;

/** The way of a camera, seen from above. Stations in metres along it. */
export interface MovePath {
  length: number;
  closed: boolean;
  /** Highest speed along it, m/s. */
  topSpeed: number;
  stationAt(time: number): number;
  /** Seconds at which a station is passed first. */
  timeAt(station: number): number;
  /** Writes x and z. */
  pointAt(station: number, out: Float64Array): void;
  /** What is under it: the floor for who walks, else the camera itself, metres. */
  placeAt(station: number): Vec3;
  /** What holds on to a station when the path is changed: the node before it, where there are nodes. */
  anchorAt(station: number): WayAnchor;
  /** Station nearest to a place in the plan. */
  nearest(x: number, z: number): number;
}

/** What a walker has under the feet and in the way. */
export interface WalkedGround {
  /** Of who walks, metres. */
  eyeHeight: number;
  gaps: readonly FloorGap[];
  /** Worked out when first asked. */
  readonly obstacles: readonly Obstacle[];
  /** Is it known what stands in the way? */
  knowsObstacles: boolean;
}

/** Something that a camera is to look at for a while. */
export interface Looked {
  /** seconds */
  from: number;
  to: number;
  /** Where it is at a time, metres. */
  at(time: number): Vec3;
  /** So near to that it begins itself, metres. */
  reach: number;
  /** It goes somewhere itself: then what is behind it may go by. */
  moves?: boolean;
  /** Its extent at rest, where all of it is meant to be seen. */
  bounds?: Bounds;
  /** What of it sticks out farthest then, from its middle, metres. */
  corners?: readonly Vec3[];
}

/**
 * A move ready to be asked for any instant, whatever kind it is. Made once per edit; asking allocates only the answer.
 * Times outside the move are clamped to its ends.
 */
export interface CompiledMove {
  /** seconds */
  readonly duration: number;
  /** Its end is its beginning: a film of it repeats no frame. */
  readonly loops: boolean;
  sampleAt(time: number): CameraSample;
  /** Fills `out` with {@link SAMPLE_STRIDE} numbers per time, without allocating. */
  fill(times: ArrayLike<number>, out: Float64Array): void;
  /** What it does over time, for strips and tables. */
  readonly channels: readonly Channel[];
  readonly path: MovePath | null;
  /** What it is to look at, and when. */
  readonly looks: readonly Looked[];
  /** Where bounds on its turning keep it from what it is to look at. */
  readonly gazeOff: readonly GazeOff[];
  /** Keys that hold on to nothing any more. */
  readonly lostKeys: number;
  /** Where something rests that moves away, or along with the camera: what is met there is not met. */
  readonly away?: Bounds | undefined;
  /** Only what walks has ground. */
  readonly ground: WalkedGround | null;
}

/** The first numbers of a batch as a sample. @param view what it is seen through @param time of the move, seconds */
export const sampleOf = (batch: Float64Array, view: CameraView, time: number): CameraSample => ({
  position: [batch[0]!, batch[1]!, batch[2]!],
  orientation: [batch[3]!, batch[4]!, batch[5]!, batch[6]!],
  view,
  moveTime: time,
  siteTime: time,
  exposure: batch[10]!,
});

/** A time of a move: held at the ends, or gone round where the end is the beginning, to the last digit. */
export function within(time: number, { duration, loops }: Pick<CompiledMove, 'duration' | 'loops'>): number {
  if (loops) return time - duration * Math.floor(time / duration);
  return Math.min(Math.max(time, 0), duration);
}

/** Who moves less than this in a tenth of a second stands, metres. */
const STANDING = 1e-4;

/** What a time of a move holds on to: the path, and where one stands on it the time itself. */
export function anchorAtTime(path: MovePath, time: number): Anchor {
  const at = path.stationAt(time);
  const stands = path.stationAt(time + 0.1) - at < STANDING || at - path.stationAt(time - 0.1) < STANDING;
  return stands ? { by: 'time', time } : path.anchorAt(at);
}
