import type { Pace, WayAnchor } from '../document/index.ts';
import { ACCELERATION_LIMIT, JERK_LIMIT } from './comfort.ts';
import type { PacedWay, PlacedMark, PlacedPause, PlacedPin } from './paced-way.ts';
import type { PaceProfile } from './pace-profile.ts';
import { SoftTimeline, type Timeline } from './soft-timeline.ts';
import { speedLimits, type SpeedLimits } from './speed-limits.ts';
import { timeAtStation } from './time-at-station.ts';

/** Two places are one, metres. */
const SAME_PLACE = 0.02;
/** Nobody goes slower, unless standing, or faster, m/s. */
const SLOWEST = 0.01;
const FASTEST = 50;
const MOST_ROUNDS = 60;
/** Times agree, seconds. */
const AGREED = 1e-8;
/** A pin is corrected for the averaging at most so often. */
const CORRECTIONS = 3;

/** A stretch that ends at a wanted time. */
interface Stretch {
  to: number;
  /** seconds; null: as long as its speed makes it */
  until: number | null;
  /** Is it all over then? Else one arrives, and may stand there. */
  over: boolean;
}

/** Is there anything in a pace that its shape alone does not say? */
export const isPlanned = ({ marks, pauses, pins, turning }: Pace): boolean =>
  Boolean(marks?.length || pauses?.length || pins?.length) || turning !== undefined;

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

interface Placed {
  marks: PlacedMark[];
  pauses: PlacedPause[];
  pins: Omit<PlacedPin, 'reached'>[];
  /** Items that hold on to nothing any more. */
  lost: number;
}

function placeItems({ marks = [], pauses = [], pins = [], speed }: Pace, { length, stationOf }: PacedWay): Placed {
  let lost = 0;
  const place = <T extends { anchor: WayAnchor }>(items: readonly T[]): (T & { station: number })[] =>
    items.flatMap((item) => {
      const { anchor } = item;
      const station = stationOf ? stationOf(anchor) : anchor.by === 'station' ? anchor.station : null;
      if (station === null) lost += 1;
      return station === null ? [] : [{ ...item, station: Math.min(length, Math.max(0, station)) }];
    });
  const placed = {
    marks: place(marks).map((mark) => ({
      id: mark.id,
      from: Math.max(0, mark.station - mark.length / 2),
      to: Math.min(length, mark.station + mark.length / 2),
      speed: mark.speed,
      part: mark.speed / speed,
    })),
    pauses: place(pauses)
      .map(({ id, station, seconds }) => ({ id, station, seconds }))
      .sort((a, b) => a.station - b.station),
    pins: place(pins)
      .map(({ id, station, time }) => ({ id, station, time }))
      .sort((a, b) => a.station - b.station),
  };
  return { ...placed, lost };
}

interface Plan {
  soft: SoftTimeline;
  /** m/s */
  cruise: number;
  pins: PlacedPin[];
  /** How much later than wanted it ends, seconds. */
  late: number;
}

function plan(pace: Pace, way: PacedWay, placed: Placed, acceleration: number): Plan {
  const { pauses, pins } = placed;
  // What is to be over sooner than that is averaged over less.
  const soonest = Math.min(pace.by === 'duration' ? pace.duration : Infinity, ...pins.map(({ time }) => time));
  const window = Math.min((2 * ACCELERATION_LIMIT) / JERK_LIMIT, soonest / 4);
  const places = [...pauses, ...pins].map(({ station }) => station);
  const limits = speedLimits(pace, way, placed.marks, places, window);
  const rests = restsOf(limits.rests, pauses, way.length);
  const walk = new Walker(limits, pauses, rests, acceleration, window, pace.speed);
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

/** Goes the way again and again, until it is where it should be when it should be. */
class Walker {
  /** Which stretches end when they should. */
  met: boolean[] = [];
  private readonly speeds: Float64Array;
  private readonly stops: Float64Array;

  constructor(
    private readonly limits: SpeedLimits,
    pauses: readonly PlacedPause[],
    private readonly rests: { start: boolean; end: boolean },
    private readonly acceleration: number,
    window: number,
    private readonly speed: number,
  ) {
    const { stations } = limits;
    this.speeds = new Float64Array(stations.length);
    // Seconds at every knot: −1 where nobody stops. Averaging takes half a window from both ends of a pause within.
    this.stops = new Float64Array(stations.length).fill(-1);
    const last = stations.length - 1;
    for (const { station, seconds } of pauses) {
      const k = knotAt(stations, station);
      const whole = seconds + (k > 0 && k < last ? window : 0);
      this.stops[k] = this.stops[k]! < 0 ? whole : this.stops[k]! + seconds;
    }
  }

  /** @param aims when each stretch is to end, before averaging, seconds */
  meet(stretches: readonly Stretch[], aims: readonly (number | null)[]): Timeline {
    const { stations } = this.limits;
    const ends = stretches.map(({ to }) => knotAt(stations, to));
    const factors = stretches.map(() => 1);
    const before: ({ factor: number; took: number } | null)[] = stretches.map(() => null);
    for (let round = 0; ; round += 1) {
      const times = this.go(ends, factors);
      let settled = true;
      this.met = [];
      let [from, start] = [0, 0];
      for (let i = 0; i < stretches.length; i += 1) {
        const arrives = times[ends[i]!]!;
        const standing = this.standing(from, ends[i]!);
        const took = arrives - start - standing;
        const aim = aims[i] ?? null;
        if (aim !== null) {
          const wanted = Math.max(1e-3, aim - start - standing);
          const off = took - wanted;
          this.met[i] = Math.abs(off) < 1e-3;
          const factor = nextFactor(factors[i]!, took, wanted, before[i]!, this.speed);
          before[i] = { factor: factors[i]!, took };
          if (Math.abs(off) > AGREED && Math.abs(factor / factors[i]! - 1) > 1e-13) {
            settled = false;
            factors[i] = factor;
          }
        }
        [from, start] = [ends[i]!, arrives];
      }
      if (settled || round >= MOST_ROUNDS) return this.lineOf(times);
    }
  }

  /** Seconds that are stood at the very end. */
  get after(): number {
    return Math.max(0, this.stops.at(-1)!);
  }

  /** Seconds that are stood still from one knot on, before another. */
  private standing(from: number, to: number): number {
    let sum = 0;
    for (let k = from; k < to; k += 1) sum += Math.max(0, this.stops[k]!);
    return sum;
  }

  /** @returns when every knot is reached, seconds */
  private go(ends: readonly number[], factors: readonly number[]): Float64Array {
    const { stations, wanted, corners } = this.limits;
    const { speeds, stops, acceleration } = this;
    const last = stations.length - 1;
    let stretch = 0;
    for (let k = 0; k <= last; k += 1) {
      while (k > ends[stretch]! && stretch < ends.length - 1) stretch += 1;
      const asked = Math.min(FASTEST, Math.max(SLOWEST, this.speed * factors[stretch]! * wanted[k]!));
      speeds[k] = stops[k]! >= 0 ? 0 : Math.min(asked, corners[k]!);
    }
    if (this.rests.start) speeds[0] = 0;
    if (this.rests.end) speeds[last] = 0;
    for (let k = 0; k < last; k += 1)
      speeds[k + 1] = Math.min(
        speeds[k + 1]!,
        Math.sqrt(speeds[k]! * speeds[k]! + 2 * acceleration * (stations[k + 1]! - stations[k]!)),
      );
    for (let k = last; k > 0; k -= 1)
      speeds[k - 1] = Math.min(
        speeds[k - 1]!,
        Math.sqrt(speeds[k]! * speeds[k]! + 2 * acceleration * (stations[k]! - stations[k - 1]!)),
      );
    const times = new Float64Array(last + 1);
    for (let k = 0; k < last; k += 1) {
      const way = stations[k + 1]! - stations[k]!;
      const sum = speeds[k]! + speeds[k + 1]!;
      times[k + 1] = times[k]! + Math.max(0, stops[k]!) + (2 * way) / sum;
    }
    return times;
  }

  /** With every stop in it twice: when it is reached, and when it is left. */
  private lineOf(reached: Float64Array): Timeline {
    const { stations } = this.limits;
    const [times, places, speeds] = [[] as number[], [] as number[], [] as number[]];
    for (let k = 0; k < reached.length; k += 1) {
      times.push(reached[k]!);
      places.push(stations[k]!);
      speeds.push(this.speeds[k]!);
      if (this.stops[k]! <= 0) continue;
      times.push(reached[k]! + this.stops[k]!);
      places.push(stations[k]!);
      speeds.push(this.speeds[k]!);
    }
    return {
      times: Float64Array.from(times),
      stations: Float64Array.from(places),
      speeds: Float64Array.from(speeds),
    };
  }
}

/** The next factor on a stretch's speeds, by how much the last change of it brought. */
function nextFactor(
  factor: number,
  took: number,
  wanted: number,
  before: { factor: number; took: number } | null,
  speed: number,
): number {
  const change = before ? Math.log(factor / before.factor) : 0;
  const brought = before ? Math.log(took / before.took) : 0;
  // Twice as fast takes half the time at most, and at least it takes less.
  const slope = Math.abs(change) > 1e-12 ? Math.min(-0.08, Math.max(-1, brought / change)) : -1;
  const step = Math.min(1.5, Math.max(-1.5, Math.log(wanted / took) / slope));
  return Math.min(FASTEST / speed, Math.max(SLOWEST / speed, factor * Math.exp(step)));
}

function knotAt(stations: Float64Array, station: number): number {
  let [low, high] = [0, stations.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (stations[middle]! <= station) low = middle;
    else high = middle;
  }
  return station - stations[low]! < stations[high]! - station ? low : high;
}
