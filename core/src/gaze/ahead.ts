import { nearestTurn } from '../geometry/index.ts';
import type { GazeTables } from './tables.ts';

/** Turning is averaged over this length to either side, so that a kink of the line does not jerk the gaze, metres. */
export const GAZE_SMOOTHING = 0.9;

/** Going up a stair people raise their eyes by about half of its slope (common practice, no source). */
const SLOPE_SHARE = 0.5;

/**
 * Looks from every eye point at the eye point `distance` metres further on.
 * @param eye [x, y, z] at equally spaced stations
 * @param spacing metres between them
 * @param closed the last point is the first again
 */
export function gazeAhead(eye: Float64Array, spacing: number, distance: number, closed: boolean): GazeTables {
  const count = eye.length / 3;
  const last = count - 1;
  const pan = new Float64Array(count);
  const tilt = new Float64Array(count);
  const ahead = Math.max(1, Math.round(distance / spacing));
  const target = new Float64Array(3);
  for (let i = 0; i < count; i += 1) {
    targetPoint(eye, i + ahead, last, closed, target);
    const dx = target[0]! - eye[3 * i]!;
    const dy = target[1]! - eye[3 * i + 1]!;
    const dz = target[2]! - eye[3 * i + 2]!;
    const flat = Math.hypot(dx, dz);
    // A path that turns back on itself has its target under the eye: keep looking where we looked.
    pan[i] = flat < 0.05 && i > 0 ? pan[i - 1]! : nearestTurn(Math.atan2(-dx, -dz), i > 0 ? pan[i - 1]! : 0);
    tilt[i] = SLOPE_SHARE * Math.atan2(dy, Math.max(flat, 0.05));
  }
  return { pan, tilt };
}

/** Beyond an open end the path goes straight on. */
function targetPoint(eye: Float64Array, index: number, last: number, closed: boolean, out: Float64Array): void {
  if (index <= last || closed) {
    const k = index <= last ? index : ((index - 1) % last) + 1;
    for (let axis = 0; axis < 3; axis += 1) out[axis] = eye[3 * k + axis]!;
    return;
  }
  const back = Math.max(0, last - 4);
  for (let axis = 0; axis < 3; axis += 1) {
    const end = eye[3 * last + axis]!;
    const rate = (end - eye[3 * back + axis]!) / Math.max(1, last - back);
    out[axis] = end + (axis === 1 ? 0 : rate * (index - last));
  }
}
