import type { PlanCurve } from '../path/index.ts';
import type { FloorIndex } from '../survey/index.ts';
import type { MoveGap } from './sample.ts';
import { smoothTable, type UniformTable } from './uniform-table.ts';

/** Highest step a walker takes, up or down, metres. */
export const STEP = 0.25;
/** Length over which a walking head smooths its floor: about one pace, metres. */
export const PACE_LENGTH = 0.7;
/** Spacing of floor lookups along the path, metres. */
const SPACING = 0.05;
/** A jump between two lookups beyond what a walkable slope can do is a riser. */
const RISER = 0.055;
/** A single step is mounted over this length, metres; in a flight it is the going. */
const SINGLE_STEP_RUN = 0.3;
/** After this much of nothing to stand on, the walker takes whatever floor comes next below, metres. */
const LOST_AFTER = 2;

export interface FloorProfile {
  /** Height of the floor itself: stepped. */
  floor: UniformTable;
  /** The line a walking head follows, without the eye height: through the nosings, smoothed. */
  walkLine: UniformTable;
  /** Where there is nothing to stand on. */
  gaps: MoveGap[];
}

interface Riser {
  station: number;
  /** +1 going up along the path, −1 going down. */
  sense: 1 | -1;
  high: number;
}

/**
 * Follows the floor under a path: from the previous floor the next walkable surface within one step up or down.
 * @param startY height near which the path starts (its storey), metres
 * @param step highest step taken, metres
 */
export function followFloor(
  curve: PlanCurve,
  floor: FloorIndex,
  startY: number,
  closed: boolean,
  step = STEP,
): FloorProfile {
  const count = Math.max(2, Math.ceil(curve.length / SPACING)) + 1;
  const stations = Float64Array.from({ length: count }, (_, i) => (curve.length * i) / (count - 1));
  const points = new Float64Array(2 * count);
  curve.pointsAt(stations, points);
  const values = new Float64Array(count);
  const gaps: MoveGap[] = [];
  const risers: Riser[] = [];
  let here = firstFloor(floor, points[0]!, points[1]!, startY, step);
  let lostAt = Number.isFinite(here) ? -1 : 0;
  if (lostAt === 0) here = startY;
  for (let i = 0; i < count; i += 1) {
    const next = floor.floorBelow(points[2 * i]!, points[2 * i + 1]!, here + step);
    const reach = lostAt >= 0 && stations[i]! - lostAt > LOST_AFTER ? Infinity : step;
    if (next > -Infinity && next >= here - reach) {
      if (lostAt >= 0) {
        gaps.push({ from: lostAt, to: stations[i]! });
        lostAt = -1;
      } else if (i > 0 && Math.abs(next - here) > RISER) {
        risers.push({
          station: riserStation(curve, floor, stations[i - 1]!, stations[i]!, here, next, step),
          sense: next > here ? 1 : -1,
          high: Math.max(next, here),
        });
      }
      here = next;
    } else if (lostAt < 0) lostAt = stations[i]!;
    values[i] = here;
  }
  if (lostAt >= 0) gaps.push({ from: lostAt, to: curve.length });
  const floorTable: UniformTable = { values, length: curve.length, closed: closed && values[0] === values[count - 1] };
  return { floor: floorTable, walkLine: smoothTable(throughNosings(floorTable, risers), PACE_LENGTH / 2), gaps };
}

function firstFloor(floor: FloorIndex, x: number, z: number, startY: number, step: number): number {
  const near = floor.floorBelow(x, z, startY + step);
  // A path drawn on a storey may start on the steps before it: anything within a storey's height below will do.
  return near >= startY - 3 ? near : -Infinity;
}

/** Closes in on a riser between two lookups by bisection, to a tenth of a millimetre. */
function riserStation(
  curve: PlanCurve,
  floor: FloorIndex,
  from: number,
  to: number,
  before: number,
  after: number,
  step: number,
): number {
  const point = new Float64Array(2);
  const ceiling = before + step;
  let [low, high] = [from, to];
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    curve.pointAt(middle, point);
    const y = floor.floorBelow(point[0]!, point[1]!, ceiling);
    if (Math.abs(y - before) <= Math.abs(y - after)) low = middle;
    else high = middle;
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
    const length = distance <= SINGLE_STEP_RUN + 0.1 ? run : SINGLE_STEP_RUN;
    const footStation = riser.station - riser.sense * length;
    const footIndex = Math.min(Math.max(Math.round(footStation / spacing), 0), values.length - 1);
    const inFlight = neighbour && distance <= SINGLE_STEP_RUN + 0.1 && neighbour.sense === riser.sense;
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
