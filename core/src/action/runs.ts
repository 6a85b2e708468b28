import type { HingeAction, Pace, Repeat } from '../document/index.ts';
import { paceProfile, type PaceProfile } from '../pace/index.ts';
import { timeWithin } from './site-action.ts';
import type { Turning } from './turning.ts';

/** Something that is done once from its beginning to its end, or again and again. */
type Run = Pick<HingeAction, 'start' | 'seconds' | 'shape' | 'carry' | 'repeat'>;

/** How much of it is done at a time, 0…1. */
export function runOf({ start, seconds, shape, carry, repeat }: Run): (time: number) => number {
  const pace = paceProfile(paceFor(seconds, shape, carry), { length: 1 });
  const within = { start, speed: 1, repeat: repeat satisfies Repeat };
  return (time) => pace.stationAt(timeWithin(within, seconds, time));
}

const paceFor = (duration: number, shape: Pace['shape'], carry: Pace['carry']): Pace => {
  return { by: 'duration', speed: 1, duration, shape, ...(carry && { carry }) };
};

/** How far an orbit has turned as time goes on. */
export interface Sweep {
  /** Radians of its sweep, never negative. */
  at: (time: number) => number;
  /** Radians a second. */
  speedAt: (time: number) => number;
  /** From one end to the other. */
  pace: PaceProfile;
}

/** A turn that takes no way has no pace of its own, radians. */
const NO_TURN = 1e-9;

/** How an orbit turns: the same for its camera, and for a subject that turns before it. */
export function sweepOf({ sweep, duration, shape, carry, stops, swings }: Turning): Sweep {
  const length = Math.max(Math.abs(sweep), NO_TURN);
  const once = swings ? duration / 2 : duration;
  const pauses = stops
    ?.filter(({ angle }) => angle < length)
    .map(({ id, angle, seconds }) => ({ id, seconds, anchor: { by: 'station' as const, station: angle } }));
  const pace = paceProfile(
    { ...paceFor(once, shape, carry), ...(pauses && pauses.length > 0 && { pauses }) },
    { length, stationOf: (anchor) => (anchor.by === 'station' ? anchor.station : null) },
  );
  const turned = (time: number) => (swings && time > pace.duration ? 2 * pace.duration - time : time);
  return { at: (time) => pace.stationAt(turned(time)), speedAt: (time) => pace.speedAt(turned(time)), pace };
}
