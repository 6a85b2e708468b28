import type { Lens, Vec3 } from '../document/index.ts';
import { minimumJerk, slerp } from '../geometry/index.ts';
import type { CameraSample } from '../move/index.ts';
import type { CameraView } from '../optics/index.ts';

/** Can two cameras become one? Rays through a point and parallel ones cannot. */
export const canBlend = (a: CameraView, b: CameraView): boolean => a.kind === b.kind;

/** Values that are as far from one as from another in the eye: of focal lengths, openings and heights their ratio. */
const byRatio = (a: number, b: number, part: number): number => a ** (1 - part) * b ** part;
const evenly = (a: number, b: number, part: number): number => a + (b - a) * part;
/** Distances that are sharp, by how blurred they leave everything else: their inverses. Absent: everything is sharp. */
const byInverse = (a: number | undefined, b: number | undefined, part: number): number | undefined =>
  a === undefined || b === undefined ? (part < 0.5 ? a : b) : 1 / evenly(1 / a, 1 / b, part);

/**
 * One camera between two. How far it has come is a matter of minimum jerk, so that position, direction and lens set out
 * and arrive without a jolt, in place, speed and acceleration: at both ends of an overlap the blend moves exactly as the
 * camera that it comes from or goes to.
 * @param part of the overlap's time, 0…1
 * @throws RangeError for cameras that cannot become one; see {@link canBlend}
 */
export function blendSamples(a: CameraSample, b: CameraSample, part: number): CameraSample {
  const come = minimumJerk(Math.min(1, Math.max(0, part)));
  return {
    position: a.position.map((value, k) => evenly(value, b.position[k]!, come)) as Vec3,
    orientation: slerp(a.orientation, b.orientation, come),
    view: blendViews(a.view, b.view, come),
    moveTime: evenly(a.moveTime, b.moveTime, come),
    siteTime: evenly(a.siteTime, b.siteTime, come),
    exposure: evenly(a.exposure, b.exposure, come),
  };
}

function blendViews(a: CameraView, b: CameraView, come: number): CameraView {
  if (a.kind === 'parallel' && b.kind === 'parallel')
    return { ...(come < 0.5 ? a : b), kind: 'parallel', height: byRatio(a.height, b.height, come) };
  if (a.kind === 'lens' && b.kind === 'lens') return { kind: 'lens', ...blendLenses(a, b, come) };
  throw new RangeError('a view through a lens and one of parallel rays cannot become one camera');
}

function blendLenses(a: Lens, b: Lens, come: number): Lens {
  const { focus: _, fNumber: __, ...nearest } = come < 0.5 ? a : b;
  const focus = byInverse(a.focus, b.focus, come);
  const fNumber =
    a.fNumber === undefined || b.fNumber === undefined
      ? (come < 0.5 ? a : b).fNumber
      : byRatio(a.fNumber, b.fNumber, come);
  return {
    ...nearest,
    focalLengthMm: byRatio(a.focalLengthMm, b.focalLengthMm, come),
    sensor: {
      widthMm: evenly(a.sensor.widthMm, b.sensor.widthMm, come),
      heightMm: evenly(a.sensor.heightMm, b.sensor.heightMm, come),
    },
    shift: [evenly(a.shift[0], b.shift[0], come), evenly(a.shift[1], b.shift[1], come)],
    ...(focus !== undefined && { focus }),
    ...(fNumber !== undefined && { fNumber }),
  };
}
