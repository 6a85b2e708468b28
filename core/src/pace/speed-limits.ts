import type { Pace } from '../document/index.ts';
import { nearestTurn, toRadians } from '../geometry/index.ts';
import { unitShape } from './shapes.ts';
import type { PacedWay, PlacedMark } from './paced-way.ts';

/** A path is looked at so often, metres; and at no more places than that. */
const SPACING = 0.1;
const MOST_KNOTS = 4000;
/** A corner is how far the way turns within this, metres: the gaze does not follow finer kinks. */
const CORNER = 0.5;
/** The way turns by so much of what is wanted: between two places that are looked at it may turn a little faster. */
const HELD = 0.97;
/** Two knots are one, metres. */
const SAME = 1e-6;

/** Places of a path at which speeds are worked out, and what is allowed there before any factor. */
export interface SpeedLimits {
  stations: Float64Array;
  /** What shape and marks ask for, as parts of the walking speed. */
  wanted: Float64Array;
  /** m/s; Infinity where the way is straight, or nobody wants to slow down. */
  corners: Float64Array;
  rests: { start: boolean; end: boolean };
}

/** @param places stations that must be among the knots: stops, pins */
export function speedLimits(
  pace: Pace,
  way: PacedWay,
  marks: readonly PlacedMark[],
  places: readonly number[],
  window: number,
): SpeedLimits {
  const { length } = way;
  const steps = Math.min(MOST_KNOTS, Math.max(40, Math.ceil(length / SPACING)));
  const even = Array.from({ length: steps + 1 }, (_, i) => (length * i) / steps);
  const edges = marks.flatMap(({ from, to }) => [from, to]);
  // Between two stops one gets up speed, however near they are.
  const between = [0, ...places, length].sort((a, b) => a - b).map((s, i, all) => (s + (all[i + 1] ?? s)) / 2);
  const sorted = [...even, ...places, ...between, ...edges].filter((s) => s >= 0 && s <= length).sort((a, b) => a - b);
  const stations = Float64Array.from(sorted.filter((s, i) => i === 0 || s - sorted[i - 1]! > SAME));
  stations[stations.length - 1] = length;
  const shape = unitShape(pace);
  const wanted = shapeByWay(shape, stations, length);
  // Averaging over time sees half a window ahead and back: what is slow begins that much earlier.
  const pad = (speed: number) => (speed * window) / 2;
  for (const { from, to, part } of marks)
    stations.forEach((station, i) => {
      const reach = part < 1 ? pad(part * pace.speed) : 0;
      if (station >= from - reach - SAME && station <= to + reach + SAME)
        wanted[i] = part < 1 ? Math.min(wanted[i]!, part) : part;
    });
  const corners = new Float64Array(stations.length).fill(Infinity);
  const { turning } = pace;
  const { headings = [] } = way;
  if (turning !== undefined && headings.length > 0) {
    const raw = stations.map((station) => {
      const [a, b] = [Math.max(0, station - CORNER / 2), Math.min(length, station + CORNER / 2)];
      const turns = headings.map((headingAt) => Math.abs(nearestTurn(headingAt(b) - headingAt(a))));
      const turn = Math.max(...turns) / Math.max(b - a, SAME);
      return turn > 0 ? (HELD * toRadians(turning)) / turn : Infinity;
    });
    raw.forEach((limit, i) => {
      const reach = pad(Math.min(limit, pace.speed));
      for (let k = i; k >= 0 && stations[i]! - stations[k]! <= reach; k -= 1) corners[k] = Math.min(corners[k]!, limit);
      for (let k = i; k < raw.length && stations[k]! - stations[i]! <= reach; k += 1)
        corners[k] = Math.min(corners[k]!, limit);
    });
  }
  return { stations, wanted, corners, rests: shape.rests };
}

const SAMPLES = 512;

/** A shape is a speed over time; here it is asked for by the way. */
function shapeByWay(
  { speed, way, whole }: ReturnType<typeof unitShape>,
  stations: Float64Array,
  length: number,
): Float64Array {
  let k = 0;
  return stations.map((station) => {
    const part = (station / length) * whole;
    while (k < SAMPLES - 1 && way((k + 1) / SAMPLES) < part) k += 1;
    const [a, b] = [way(k / SAMPLES), way((k + 1) / SAMPLES)];
    const tau = (k + (b > a ? Math.min(1, Math.max(0, (part - a) / (b - a))) : 0)) / SAMPLES;
    return speed(tau);
  });
}
