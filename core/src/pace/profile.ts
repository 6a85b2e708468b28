import type { Pace } from '../document/index.ts';
import { ACCELERATION_LIMIT } from './comfort.ts';
import { keptShape } from './kept.ts';
import type { PaceProfile } from './pace-profile.ts';
import type { PacedWay } from './paced-way.ts';
import { isPlanned, plannedProfile } from './planned.ts';
import { minimumJerk } from '../geometry/index.ts';
import { MINIMUM_JERK_PEAK, minimumJerkArea, unitShape, type UnitShape } from './shapes.ts';

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);

/** A named shape over the whole time. */
function shapedProfile(length: number, duration: number, { speed, way, whole }: UnitShape): PaceProfile {
  const top = length / (duration * whole);
  return {
    length,
    duration,
    cruise: top,
    stationAt: (time) => Math.min(length, (length * way(clamp(time / duration, 0, 1))) / whole),
    speedAt: (time) => top * speed(clamp(time / duration, 0, 1)),
  };
}

/** Seconds that a soft start to `speed` takes, so that its peak acceleration is the limit. */
const rampTime = (speed: number) => (MINIMUM_JERK_PEAK * speed) / ACCELERATION_LIMIT;

/** Starts and stops softly with a stretch of constant speed between. `ramp` is the time of each end, seconds. */
function softProfile(length: number, cruise: number, ramp: number): PaceProfile {
  // Each ramp covers half of what constant speed would: the shape is symmetric.
  const level = Math.max(0, length / cruise - ramp);
  const duration = level + 2 * ramp;
  const rampLength = (cruise * ramp) / 2;
  const stationAt = (time: number): number => {
    const t = clamp(time, 0, duration);
    if (t < ramp) return cruise * ramp * minimumJerkArea(t / ramp);
    if (t <= ramp + level) return rampLength + cruise * (t - ramp);
    return length - cruise * ramp * minimumJerkArea((duration - t) / ramp);
  };
  const speedAt = (time: number): number => {
    const t = clamp(time, 0, duration);
    if (t < ramp) return cruise * minimumJerk(t / ramp);
    if (t <= ramp + level) return cruise;
    return cruise * minimumJerk((duration - t) / ramp);
  };
  return { length, duration, cruise, stationAt, speedAt };
}

/** Soft profile by speed. A path too short to reach it is walked at the speed it allows, without haste. */
function softBySpeed(length: number, speed: number): PaceProfile {
  const reachable = Math.sqrt((length * ACCELERATION_LIMIT) / MINIMUM_JERK_PEAK);
  const cruise = Math.min(speed, reachable);
  return softProfile(length, cruise, rampTime(cruise));
}

/**
 * Soft profile by duration: length = v·(T − ramp(v)) with ramp(v) = k·v, solved for the slower root. Where the
 * limit cannot be kept in that time, the ramps take half the time each and the acceleration is what it must be.
 */
function softByDuration(length: number, duration: number): PaceProfile {
  const k = MINIMUM_JERK_PEAK / ACCELERATION_LIMIT;
  const discriminant = duration * duration - 4 * k * length;
  if (discriminant < 0) return softProfile(length, (2 * length) / duration, duration / 2);
  const cruise = (2 * length) / (duration + Math.sqrt(discriminant));
  return softProfile(length, cruise, k * cruise);
}

/**
 * The pace of a move over a path. By speed, the duration follows; by duration, the speed.
 * @throws RangeError when the length is not a positive finite number
 */
export function paceProfile(pace: Pace, way: PacedWay): PaceProfile {
  const { length } = way;
  if (!(length > 0) || !Number.isFinite(length)) throw new RangeError(`path length must be above 0 m, got ${length}`);
  if (isPlanned(pace)) return plannedProfile(pace, way);
  const bySpeed = pace.by === 'speed';
  if (pace.shape === 'soft' && !pace.kept)
    return bySpeed ? softBySpeed(length, pace.speed) : softByDuration(length, pace.duration);
  const shape = pace.kept ? keptShape(pace.kept) : unitShape(pace);
  // "Walking speed" of a shape without a level stretch is its peak: nobody should see more than was asked for.
  return shapedProfile(length, bySpeed ? length / (pace.speed * shape.whole) : pace.duration, shape);
}
