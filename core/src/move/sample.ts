import type { Lens, Quaternion, Vec3 } from '../document/index.ts';

/** What the camera is at one instant. Picture, checks, reel, render and export read this and nothing else. */
export interface CameraSample {
  /** metres */
  position: Vec3;
  /** Unit quaternion with continuous sign; roll included. */
  orientation: Quaternion;
  lens: Lens;
  /** Seconds into the move: where moving objects are. Without it they are where they begin. */
  time?: number;
}

/** Numbers per sample in the batch form: position (3), orientation (4), focal length in mm (1). */
export const SAMPLE_STRIDE = 8;

/** A move ready to be asked for any instant. Made once per edit; asking allocates only the answer. */
export interface CompiledMove {
  /** seconds */
  duration: number;
  sampleAt(time: number): CameraSample;
  /** Fills `out` with {@link SAMPLE_STRIDE} numbers per time. */
  fill(times: ArrayLike<number>, out: Float64Array): void;
}
