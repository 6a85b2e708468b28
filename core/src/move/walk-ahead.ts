import { GAZE_SMOOTHING, gazeAhead } from '../gaze/index.ts';
import { nearestTurn } from '../geometry/index.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** A place where the walker stands still. */
export interface Standing {
  /** metres */
  station: number;
  /** When it begins and ends, seconds. */
  from: number;
  to: number;
}

interface AheadWay {
  /** metres */
  length: number;
  closed: boolean;
  /** How far along the path the eye looks, metres. */
  distance: number;
  /** Metres between two eye points. */
  spacing: number;
  /** Writes the eye points at stations within the way. */
  eyeAt(stations: Float64Array): Float64Array;
  stationAt(time: number): number;
  /** In the order of the way, none at an open end. */
  standings: readonly Standing[];
}

/** Turns less than this are made along the way, radians. */
const WORTH_STANDING = 0.05;

/**
 * Who stands still on the way arrives looking where the way led, turns on the spot, and leaves looking where it goes on.
 * The turn is made as slowly as `comfort` where the stay is long enough; else it begins a little before the walker
 * stands, and ends a little after.
 * @param times in order, seconds
 * @param comfort radians a second
 */
export function aheadWithStays(
  way: AheadWay,
  times: Float64Array,
  comfort: number,
): { pan: Float64Array; tilt: Float64Array } {
  const { standings, stationAt } = way;
  const pieces = piecesOf(way);
  const turns = standings.map((standing, i) => turnBetween(standing, pieces[i]!, pieces[i + 1]!, comfort));
  const pan = new Float64Array(times.length);
  const tilt = new Float64Array(times.length);
  let k = 0;
  times.forEach((time, i) => {
    while (k < turns.length && time > turns[k]!.to) k += 1;
    const station = stationAt(time);
    const turn = turns[k];
    const before = lookAt(pieces[k]!, station);
    const part = turn ? evenTurn((time - turn.from) / (turn.to - turn.from)) : 0;
    if (part === 0) [pan[i], tilt[i]] = before;
    else {
      const after = lookAt(pieces[k + 1]!, station);
      pan[i] = before[0] + part * (after[0] - before[0]);
      tilt[i] = before[1] + part * (after[1] - before[1]);
    }
  });
  return { pan, tilt };
}

/** Between two stays, or a stay and an end. */
interface Piece {
  from: number;
  to: number;
  pan: UniformTable;
  tilt: UniformTable;
}

/** Pan and tilt on a piece; before and after it, as at its ends. */
function lookAt({ from, to, pan, tilt }: Piece, station: number): [number, number] {
  const place = Math.min(Math.max(station, from), to) - from;
  return [tableAt(pan, place), tableAt(tilt, place)];
}

/** The gaze of every piece, looked at as a way of its own, each turned from the last by less than half a turn. */
function piecesOf({ length, closed, distance, spacing, eyeAt, standings }: AheadWay): Piece[] {
  const stays = standings.map(({ station }) => station);
  const [first, last] = [stays[0]!, stays.at(-1)!];
  // A closed way is looked along over its beginning: the first piece begins, and the last ends, beyond it.
  const cuts = closed ? [last - length, ...stays, first + length] : [0, ...stays, length];
  let end = 0;
  return cuts.slice(1).map((to, i) => {
    const from = cuts[i]!;
    const steps = Math.max(8, Math.ceil((to - from) / spacing));
    const stations = Float64Array.from({ length: steps + 1 }, (_, k) => {
      const at = from + ((to - from) * k) / steps;
      return closed ? at - length * Math.floor(at / length) : at;
    });
    const looked = gazeAhead(eyeAt(stations), (to - from) / steps, distance, false);
    const turn = nearestTurn(looked.pan[0]!, i > 0 ? end : looked.pan[0]!) - looked.pan[0]!;
    const soft = (values: Float64Array) => smoothTable({ values, length: to - from, closed: false }, GAZE_SMOOTHING);
    const pan = soft(looked.pan.map((value) => value + turn));
    end = pan.values[steps]!;
    return { from, to, pan, tilt: soft(looked.tilt) };
  });
}

/** Longest that a turn begins before the walker stands, and ends after, seconds. */
const AROUND = 1.2;

/** When one turns from where a stay was come to, to where it is left. */
function turnBetween(standing: Standing, before: Piece, after: Piece, comfort: number): { from: number; to: number } {
  const { from, to, station } = standing;
  const [there, on] = [lookAt(before, station), lookAt(after, station)];
  const angle = Math.hypot(on[0] - there[0], on[1] - there[1]);
  const stay = to - from;
  if (angle < WORTH_STANDING) return { from, to };
  const needed = turningTime(angle, comfort);
  // With time to spare, one looks first where one has come, and turns last.
  if (needed <= stay) return { from: to - needed, to };
  const around = Math.min(AROUND, (needed - stay) / 2);
  return { from: from - around, to: to + around };
}

/** Of an even turn, the part that gathers speed, and again the part that loses it. */
const RAMP = 0.3;

/** How long a turn on the spot takes that is nowhere faster than a rate. @param angle radians @param rate radians a second */
export const turningTime = (angle: number, rate: number): number => Math.abs(angle) / ((1 - RAMP) * rate);

/** An even turn, softly begun and ended: 0…1 to 0…1, held outside. */
function evenTurn(part: number): number {
  if (part <= 0) return 0;
  if (part >= 1) return 1;
  if (part > 0.5) return 1 - evenTurn(1 - part);
  const speed = 1 / (1 - RAMP);
  const x = Math.min(1, part / RAMP);
  return speed * (RAMP * (x ** 3 - x ** 4 / 2) + Math.max(0, part - RAMP));
}
