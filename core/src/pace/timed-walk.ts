import { pieceAt } from '../geometry/index.ts';
import type { PlacedPause } from './paced-way.ts';
import type { Timeline } from './soft-timeline.ts';
import type { SpeedLimits } from './speed-limits.ts';

/** Nobody goes slower, unless standing, or faster, m/s. */
const SLOWEST = 0.01;
const FASTEST = 50;
const MOST_ROUNDS = 60;
/** Times agree, seconds. */
export const AGREED = 1e-8;
/** A stretch that ends within this of its time has met it, seconds. */
const MET = 1e-3;

/** A stretch that ends at a wanted time. */
export interface Stretch {
  to: number;
  /** seconds; null: as long as its speed makes it */
  until: number | null;
  /** Is it all over then? Else one arrives, and may stand there. */
  over: boolean;
}

/** Goes the way again and again, until it is where it should be when it should be. */
export class TimedWalk {
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
          this.met[i] = Math.abs(off) < MET;
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
  const low = pieceAt(stations, station);
  return station - stations[low]! < stations[low + 1]! - station ? low : low + 1;
}
