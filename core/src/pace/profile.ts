import type { Pace } from '../document/index.ts';
import { minimumJerk, MINIMUM_JERK_PEAK, minimumJerkArea, minimumJerkSpeed } from './shapes.ts';

/** A walker's comfortable limit, m/s² (common practice, no source). */
export const ACCELERATION_LIMIT = 0.5;

/** Station and speed as functions of time. Times outside the move are clamped to its ends. */
export interface PaceProfile {
  /** metres */
  length: number;
  /** seconds */
  duration: number;
  /** Highest speed reached, m/s. */
  cruise: number;
  /** Metres along the path at a time in seconds; never decreases. */
  stationAt(time: number): number;
  /** m/s */
  speedAt(time: number): number;
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);

function constantProfile(length: number, duration: number): PaceProfile {
  const cruise = length / duration;
  return {
    length,
    duration,
    cruise,
    stationAt: (time) => clamp(time, 0, duration) * cruise,
    speedAt: () => cruise,
  };
}

function easeBothProfile(length: number, duration: number): PaceProfile {
  return {
    length,
    duration,
    cruise: (MINIMUM_JERK_PEAK * length) / duration,
    stationAt: (time) => length * minimumJerk(clamp(time / duration, 0, 1)),
    speedAt: (time) => (length / duration) * minimumJerkSpeed(clamp(time / duration, 0, 1)),
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
 * The pace of a move over a path of `length` metres. By speed, the duration follows; by duration, the speed.
 * @throws RangeError when the length is not a positive finite number
 */
export function paceProfile(pace: Pace, length: number): PaceProfile {
  if (!(length > 0) || !Number.isFinite(length)) throw new RangeError(`path length must be above 0 m, got ${length}`);
  const bySpeed = pace.by === 'speed';
  switch (pace.shape) {
    case 'constant':
      return constantProfile(length, bySpeed ? length / pace.speed : pace.duration);
    case 'ease both':
      // "Walking speed" of a shape without a level stretch is its peak: nobody should see more than was asked for.
      return easeBothProfile(length, bySpeed ? (MINIMUM_JERK_PEAK * length) / pace.speed : pace.duration);
    case 'soft':
      return bySpeed ? softBySpeed(length, pace.speed) : softByDuration(length, pace.duration);
  }
}

/** When a station is passed first, seconds: a pace never runs backward, so halving finds it. */
export function timeAtStation({ duration, stationAt }: PaceProfile, station: number): number {
  let [low, high] = [0, duration];
  for (let i = 0; i < 50; i += 1) {
    const middle = (low + high) / 2;
    if (stationAt(middle) < station) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
