import type { DriftWay, Rate, ShotBody, ViewBody, Vec3 } from '../document/index.ts';
import { middle } from '../geometry/index.ts';
import { standing, type CameraSample, type CompiledMove, type Looked } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { sourceTime, type PlannedShot } from './plan.ts';
import { frameTime } from './timecode.ts';

/** Where a shot's camera comes from. */
export type ShotCamera =
  | { kind: 'move'; move: Pick<CompiledMove, 'sampleAt' | 'duration' | 'loops' | 'looks'> }
  | { kind: 'view'; view: Pick<ViewBody, 'pose' | 'lens'> };

/** By the camera's own axes: to the right, up, and ahead. */
const WAYS: Record<DriftWay, Vec3> = {
  in: [0, 0, 1],
  out: [0, 0, -1],
  left: [-1, 0, 0],
  right: [1, 0, 0],
  up: [0, 1, 0],
  down: [0, -1, 0],
};

/**
 * The camera of a shot, so many seconds after its first frame.
 * @param seconds may lie a little outside the shot: how it moves at its ends is asked for
 */
export function sampleShot(
  { use }: Pick<ShotBody, 'use'>,
  planned: PlannedShot,
  camera: ShotCamera,
  seconds: number,
  rate: Rate,
): CameraSample {
  if (camera.kind === 'move') return camera.move.sampleAt(sourceTime(planned, seconds));
  const still = standing(camera.view.pose, camera.view.lens, seconds);
  const drift = use.kind === 'view' ? use.drift : undefined;
  if (!drift) return still;
  const { distance, gone = 0, way } = drift;
  const come = gone + (distance * seconds) / frameTime(planned.frames, rate);
  const on = new Projection(still.view, 1, still.position, still.orientation).fromAxes(
    WAYS[way].map((value) => value * come) as Vec3,
  );
  return { ...still, position: still.position.map((value, k) => value + on[k]!) as Vec3 };
}

/** What is looked at at a time of a move, if anything. */
export const lookAt = (looks: readonly Looked[], time: number): Looked | undefined =>
  looks.find(({ from, to }) => time >= from - 1e-6 && time <= to + 1e-6);

/** What a shot is about at a time of its source, where it looks at something; null where it does not. */
export interface Subject {
  /** Where its middle is, metres. */
  point: Vec3;
  /** It goes somewhere itself. */
  moves: boolean;
  /** Half its extent, metres; null where that is not known. */
  radius: number | null;
}

export function subjectAt(camera: ShotCamera | null, time: number): Subject | null {
  if (camera?.kind !== 'move') return null;
  const look = lookAt(camera.move.looks, time);
  if (!look) return null;
  const { bounds, moves = false } = look;
  const radius = bounds ? Math.hypot(...middle(bounds).map((value, k) => bounds.max[k]! - value)) : null;
  return { point: look.at(time), moves, radius };
}
