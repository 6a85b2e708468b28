import type { Glide, Walk } from '../document/index.ts';
import { GAZE_SMOOTHING, gazeAhead } from '../gaze/index.ts';
import { FIRST_AHEAD } from './timed-gaze.ts';
import { smoothTable, tableAt } from './uniform-table.ts';

/** How often the way is looked along, metres. */
const SPACING = 0.1;

interface PlannedWay {
  /** metres */
  length: number;
  closed: boolean;
  /** Writes the place and the direction of a station in plan: x, z. */
  pointAt(station: number, out: Float64Array): void;
  directionAt(station: number, out: Float64Array): void;
}

/**
 * What turns as one goes along a way, by station, radians: the way itself, and the eye where it looks ahead. The eye turns
 * before a corner is there, while one is still going fast: who slows down for the corner alone turns the picture faster
 * than was wanted.
 */
export function wayHeadings(
  { pace, gaze }: Pick<Walk | Glide, 'pace' | 'gaze'>,
  way: PlannedWay,
): ((station: number) => number)[] {
  const out = new Float64Array(2);
  const travel = (station: number) => {
    way.directionAt(station, out);
    return Math.atan2(-out[0]!, -out[1]!);
  };
  if (pace.turning === undefined || (gaze.kind !== 'ahead' && gaze.kind !== 'kept')) return [travel];
  const { length, closed } = way;
  const steps = Math.max(8, Math.ceil(length / SPACING));
  const eye = new Float64Array(3 * (steps + 1));
  for (let i = 0; i <= steps; i += 1) {
    way.pointAt((length * i) / steps, out);
    eye[3 * i] = out[0]!;
    eye[3 * i + 2] = out[1]!;
  }
  const distance = gaze.kind === 'ahead' ? gaze.distance : FIRST_AHEAD;
  const { pan } = gazeAhead(eye, length / steps, distance, closed);
  const looks = smoothTable({ values: pan, length, closed }, GAZE_SMOOTHING);
  return [travel, (station) => tableAt(looks, station)];
}
