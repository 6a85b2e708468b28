import type { Pace } from '../document/index.ts';
import { ACCELERATION_LIMIT, JERK_LIMIT } from './comfort.ts';
import type { PacedWay, PlacedPause, PlacedPin } from './paced-way.ts';
import { placeItems, type PlacedItems } from './placed-items.ts';
import type { PaceProfile } from './pace-profile.ts';
import { SoftTimeline } from './soft-timeline.ts';
import { speedLimits, type SpeedLimits } from './speed-limits.ts';
import { timeAtStation } from './time-at-station.ts';
import { AGREED, TimedWalk, type Stretch } from './timed-walk.ts';

/** Two places are one, metres. */
const SAME_PLACE = 0.02;
/** A pin is corrected for the averaging at most so often. */
const CORRECTIONS = 3;

/** Is there anything in a pace that its shape alone does not say? */
export const isPlanned = ({ kept, marks, pauses, pins, turning }: Pace): boolean =>
  !kept && (Boolean(marks?.length || pauses?.length || pins?.length) || turning !== undefined);

/**
 * The pace of a way with marks, pauses, pins and corners: the highest speed that all of them allow at every station, then
 * forward and backward as acceleration allows, then averaged so that jerk is bounded. Times that are wanted are met by
 * one factor on the speeds of each stretch; pauses are kept.
 */
export function plannedProfile(pace: Pace, way: PacedWay): PaceProfile {
  const placed = placeItems(pace, way);
  const wantedEnd = pace.by === 'duration' ? pace.duration : null;
  let acceleration = ACCELERATION_LIMIT;
  let made = plan(pace, way, placed, acceleration);
  // Too short a time without pins: the acceleration is what it must be.
  for (let k = 0; k < 24 && wantedEnd !== null && placed.pins.length === 0 && made.late > AGREED; k += 1)
    made = plan(pace, way, placed, (acceleration *= 1.5));
  const { soft, cruise, pins } = made;
  const met = wantedEnd !== null && Math.abs(soft.duration - wantedEnd) < 1e-3;
  const duration = met ? wantedEnd : soft.duration;
  const stretch = soft.duration / duration;
  const profile = {
    length: way.length,
    duration,
    cruise,
    stationAt: (time: number) => soft.stationAt(time * stretch),
    speedAt: (time: number) => soft.speedAt(time * stretch) * stretch,
  };
  return {
    ...profile,
    marks: placed.marks,
    pauses: placed.pauses.map((pause) => ({ ...pause, from: timeAtStation(profile, pause.station) })),
    pins: pins.map((pin) => ({ ...pin, reached: pin.reached / stretch })),
    lost: placed.lost,
  };
}

interface Plan {
  soft: SoftTimeline;
  /** m/s */
  cruise: number;
  pins: PlacedPin[];
  /** How much later than wanted it ends, seconds. */
  late: number;
}

function plan(pace: Pace, way: PacedWay, placed: PlacedItems, acceleration: number): Plan {
  const { pauses, pins } = placed;
  // What is to be over sooner than that is averaged over less.
  const soonest = Math.min(pace.by === 'duration' ? pace.duration : Infinity, ...pins.map(({ time }) => time));
  const window = Math.min((2 * ACCELERATION_LIMIT) / JERK_LIMIT, soonest / 4);
  const places = [...pauses, ...pins].map(({ station }) => station);
  const limits = speedLimits(pace, way, placed.marks, places, window);
  const rests = restsOf(limits.rests, pauses, way.length);
  const walk = new TimedWalk(limits, pauses, rests, acceleration, window, pace.speed);
  const atEnd = (station: number) => station > way.length - SAME_PLACE;
  const byDuration = pace.by === 'duration';
  const stretches: Stretch[] = pins
    .filter(({ station }, i) => station > SAME_PLACE && station - (pins[i - 1]?.station ?? 0) > SAME_PLACE)
    // How long it takes is said already.
    .filter(({ station }) => !(byDuration && atEnd(station)))
    .map(({ station, time }) => ({ to: atEnd(station) ? way.length : station, until: time, over: false }));
  if (!atEnd(stretches.at(-1)?.to ?? 0))
    stretches.push({ to: way.length, until: byDuration ? pace.duration : null, over: true });
  const shift = rests.start ? window / 2 : 0;
  const aims = stretches.map(({ to, until, over }) => {
    if (until === null) return null;
    const last = atEnd(to) ? (rests.end ? window / 2 : 0) + (over ? walk.after : 0) : 0;
    return until - shift - last;
  });
  let line = walk.meet(stretches, aims);
  let soft = new SoftTimeline(line, window, rests);
  for (let k = 0; k < CORRECTIONS && pins.length > 0; k += 1) {
    let worst = 0;
    stretches.forEach(({ to, until }, i) => {
      if (until === null || atEnd(to) || !walk.met[i]) return;
      const off = timeAtStation(soft, to) - until;
      aims[i] = aims[i]! - off;
      worst = Math.max(worst, Math.abs(off));
    });
    if (worst < 1e-4) break;
    line = walk.meet(stretches, aims);
    soft = new SoftTimeline(line, window, rests);
  }
  const end = pace.by === 'duration' ? pace.duration : null;
  return {
    soft,
    cruise: line.speeds.reduce((most, speed) => Math.max(most, speed), 0),
    pins: pins.map((pin) => ({
      ...pin,
      reached: atEnd(pin.station) ? soft.duration - walk.after : timeAtStation(soft, pin.station),
    })),
    late: end === null ? 0 : soft.duration - end,
  };
}

/** Who pauses at an end of the way stands there, whatever the shape says. */
const restsOf = (shape: SpeedLimits['rests'], pauses: readonly PlacedPause[], length: number) => ({
  start: shape.start || pauses.some(({ station }) => station < SAME_PLACE),
  end: shape.end || pauses.some(({ station }) => station > length - SAME_PLACE),
});
