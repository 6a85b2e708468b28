import type { Path, Walker } from '../document/index.ts';
import type { PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import { findFloorLine, SPACING, type Anchor, type FloorGap, type PlanLine } from './floor-line.ts';
import { smoothTable, type UniformTable } from './uniform-table.ts';

/** Length over which a walking head smooths its floor: about one pace, metres. */
export const PACE_LENGTH = 0.7;
/** A jump between two lookups beyond what a walkable slope can do is a riser. */
const RISER = 0.055;
/** A single step is mounted over this length, metres; in a flight it is the going. */
const SINGLE_STEP_RUN = 0.3;
/** Longer paths are looked at at wider stations: so many at most. */
const MOST_STATIONS = 200_000;

/**
 * The eye rises and falls by no more than this per metre walked: a slope of 45°, the steepest that is walked by default.
 * Through the smoothing its change per metre is at most 2 × this / (half a pace).
 */
export const MOST_RISE = 1;

export interface FloorProfile {
  /** Height of the floor itself: stepped; over gaps from edge to edge. */
  floor: UniformTable;
  /** The line a walking head follows, without the eye height: through the nosings, smoothed. */
  walkLine: UniformTable;
  /** Where a walker could not walk, and why. */
  gaps: FloorGap[];
}

interface Riser {
  station: number;
  /** +1 going up along the path, −1 going down. */
  sense: 1 | -1;
  high: number;
  low: number;
}

/**
 * The floor under a path and the line of the head above it.
 * @param anchors of the path's nodes; the first says at which height it starts where there is no floor
 */
export function profileFloor(
  line: PlanLine,
  footing: Footing,
  walker: Pick<Walker, 'height' | 'step'>,
  anchors: readonly Anchor[],
  closed: boolean,
): FloorProfile {
  const count = Math.min(MOST_STATIONS, Math.max(2, Math.ceil(line.length / SPACING))) + 1;
  const stations = Float64Array.from({ length: count }, (_, i) => (line.length * i) / (count - 1));
  const { heights, gaps } = findFloorLine(line, stations, footing, walker, anchors, closed);
  const risers = findRisers(line, footing, stations, heights);
  const values = bridge(heights, anchors[0]?.y ?? 0);
  const floor: UniformTable = {
    values,
    length: line.length,
    closed: closed && Math.abs(values[0]! - values[count - 1]!) < 1e-6,
  };
  const raised = limitRise(throughNosings(floor, risers), line.length / (count - 1));
  return { floor, walkLine: smoothTable(raised, PACE_LENGTH / 2), gaps };
}

/** The floor under a path that people have drawn: its nodes say which of several floors is meant. @param curve of the path */
export function profilePath(
  { nodes, closed }: Path,
  curve: PlanCurve,
  footing: Footing,
  walker: Pick<Walker, 'height' | 'step'>,
): FloorProfile {
  const anchors = nodes.map(({ y, surface }, i) => ({ station: curve.nodeStations[i]!, y, loose: !surface }));
  return profileFloor(curve, footing, walker, anchors, closed && nodes.length > 2);
}

/** Over what is not known the line goes straight from edge to edge; before the first and after the last it stays level. */
function bridge(heights: Float64Array, otherwise: number): Float64Array {
  const values = heights.slice();
  let before = -1;
  for (let i = 0; i <= values.length; i += 1) {
    if (i < values.length && Number.isNaN(values[i]!)) continue;
    const [from, to] = [before < 0 ? values[i] : values[before], i < values.length ? values[i] : values[before]];
    for (let k = before + 1; k < i; k += 1)
      values[k] = (from ?? otherwise) + (((to ?? otherwise) - (from ?? otherwise)) * (k - before)) / (i - before);
    before = i;
  }
  return values;
}

/** Where the line jumps: between neighbouring stations, and over joints. */
function findRisers(line: PlanLine, footing: Footing, stations: Float64Array, heights: Float64Array): Riser[] {
  const risers: Riser[] = [];
  let before = -1;
  for (let i = 0; i < heights.length; i += 1) {
    if (Number.isNaN(heights[i]!)) continue;
    const [a, b] = [before < 0 ? heights[i]! : heights[before]!, heights[i]!];
    if (before >= 0 && i - before <= 4 && Math.abs(b - a) > RISER * (i - before))
      risers.push({
        station: riserStation(line, footing, stations[before]!, stations[i]!, a, b),
        sense: b > a ? 1 : -1,
        high: Math.max(a, b),
        low: Math.min(a, b),
      });
    before = i;
  }
  return risers;
}

/** Closes in on a riser between two lookups by bisection, to a tenth of a millimetre: where the upper surface ends. */
function riserStation(
  line: PlanLine,
  footing: Footing,
  from: number,
  to: number,
  before: number,
  after: number,
): number {
  const point = new Float64Array(2);
  const upper = Math.max(before, after);
  let [low, high] = [from, to];
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    line.pointAt(middle, point);
    const onUpper = footing.floors
      .surfacesAt(point[0]!, point[1]!)
      .some((y) => Math.abs(y - upper) < Math.abs(before - after) / 2);
    if (onUpper === after > before) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/**
 * Replaces each riser by a ramp on its lower side that ends at the nosing (the upper edge). In a flight the ramps
 * meet from nosing to nosing, so what is smoothed afterwards is the straight line of the flight and not its teeth.
 */
function throughNosings(floor: UniformTable, risers: readonly Riser[]): UniformTable {
  const values = floor.values.slice();
  const spacing = floor.length / (values.length - 1);
  risers.forEach((riser, k) => {
    const neighbour = risers[riser.sense > 0 ? k - 1 : k + 1];
    const distance = neighbour ? Math.abs(neighbour.station - riser.station) : Infinity;
    const run = Math.min(distance, SINGLE_STEP_RUN + 0.1);
    const near = distance <= SINGLE_STEP_RUN + 0.1;
    // A step that no walker takes still lifts no head faster than the limit.
    const length = near ? run : Math.max(SINGLE_STEP_RUN, (riser.high - riser.low) / MOST_RISE);
    const footStation = riser.station - riser.sense * length;
    const footIndex = Math.min(Math.max(Math.round(footStation / spacing), 0), values.length - 1);
    const inFlight = neighbour && near && neighbour.sense === riser.sense;
    const foot = inFlight ? neighbour.high : floor.values[footIndex]!;
    const from = Math.ceil(Math.min(footStation, riser.station) / spacing - 1e-9);
    const to = Math.floor(Math.max(footStation, riser.station) / spacing + 1e-9);
    for (let i = Math.max(from, 0); i <= Math.min(to, values.length - 1); i += 1) {
      const part = 1 - Math.abs(i * spacing - riser.station) / length;
      values[i] = Math.max(values[i]!, foot + (riser.high - foot) * part);
    }
  });
  return { ...floor, values };
}

/** The lowest line that is nowhere below the given one and nowhere steeper than {@link MOST_RISE}. */
function limitRise(table: UniformTable, spacing: number): UniformTable {
  const values = table.values.slice();
  const last = values.length - 1;
  const most = MOST_RISE * spacing;
  // A closed line is gone round twice, so that what is high at its end counts at its beginning.
  for (let turn = 0; turn < (table.closed ? 2 : 1); turn += 1) {
    for (let i = 1; i <= last; i += 1) values[i] = Math.max(values[i]!, values[i - 1]! - most);
    if (table.closed) values[0] = values[last]!;
    for (let i = last - 1; i >= 0; i -= 1) values[i] = Math.max(values[i]!, values[i + 1]! - most);
    if (table.closed) values[last] = values[0]!;
  }
  return { ...table, values };
}
