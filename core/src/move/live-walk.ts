import { MOST_LOOKS, PACE_LIMITS, type GazeRecorded, type Path, type Pause } from '../document/index.ts';
import { nearestTurn } from '../geometry/index.ts';
import { pathFromPoints } from '../path/index.ts';
import { smoothTable } from './uniform-table.ts';

/** Where somebody was and looked at an instant of a live walk. */
export interface LiveInstant {
  /** seconds */
  time: number;
  x: number;
  /** Of the floor there, metres. */
  y: number;
  z: number;
  /** radians */
  pan: number;
  tilt: number;
}

/** What a live walk becomes: a path, stays, and a gaze as it was. */
export interface RecordedWalk {
  path: Path;
  pauses: Pause[];
  gaze: GazeRecorded;
  /** How long was walked, stays included, and how fast between them; seconds, m/s. */
  seconds: number;
  speed: number;
}

/** A recording is looked at so often, seconds. */
const STEP = 1 / 30;
/** What shakes faster than this is a hand, not a way or a look: to either side, seconds. */
const SHAKE = 0.35;
/** Who moves slower than this stands, m/s, and who stands for so long has stayed, seconds. */
const STANDS = 0.12;
const STAYS = 1;
/** Looks that turn by less need not be kept, radians. */
const SAME_LOOK = 0.006;
/** Nobody has walked who has got no farther, metres. */
const SHORTEST = 0.3;

/**
 * An ordinary walk of a live one: shaking is taken out of way and gaze, standing becomes stays.
 * @param recorded in the order of time @param slowed recorded at this part of the real speed: half speed is 0.5
 * @param surface height of the floor at a place near a height, metres; null where there is none
 * @returns null where nobody has walked
 */
export function walkFromRecording(
  recorded: readonly LiveInstant[],
  slowed: number,
  newId: () => string,
  surface: (x: number, z: number, y: number | null) => number | null,
): RecordedWalk | null {
  const first = recorded[0];
  const last = recorded.at(-1);
  if (!first || !last || last.time - first.time < STEP) return null;
  const length = last.time - first.time;
  const count = Math.max(3, Math.ceil(length / STEP) + 1);
  const even = (of: (instant: LiveInstant) => number, turns = false) => evenly(recorded, of, count, turns);
  const calm = (values: Float64Array) => smoothTable({ values, length, closed: false }, SHAKE).values;
  const [x, y, z] = [even((i) => i.x), even((i) => i.y), even((i) => i.z)].map(calm) as Float64Array[] as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const [pan, tilt] = [calm(even((i) => i.pan, true)), calm(even((i) => i.tilt))];
  const step = length / (count - 1);
  const way = (i: number) => Math.hypot(x[i]! - x[i - 1]!, z[i]! - z[i - 1]!);
  const stays: { station: number; seconds: number }[] = [];
  const points: [number, number | null, number][] = [[x[0]!, y[0]!, z[0]!]];
  let [station, stood, walked] = [0, 0, 0];
  const leave = () => {
    if (stood * slowed >= STAYS) stays.push({ station, seconds: stood * slowed });
    else walked += stood;
    stood = 0;
  };
  for (let i = 1; i < count; i += 1) {
    if (way(i) / step / slowed < STANDS) {
      stood += step;
      continue;
    }
    leave();
    station += way(i);
    walked += step;
    points.push([x[i]!, y[i]!, z[i]!]);
  }
  leave();
  if (station < SHORTEST) return null;
  const path = pathFromPoints(points, { closed: false, smooth: true, newId, surface });
  return {
    path,
    pauses: stays.map((stay) => ({
      id: newId(),
      anchor: { by: 'station', station: stay.station },
      seconds: Math.min(PACE_LIMITS.pause[1], stay.seconds),
    })),
    gaze: { kind: 'recorded', looks: looksOf(pan, tilt) },
    seconds: length * slowed,
    speed: station / (walked * slowed),
  };
}

/** A value at even times. @param turns angles go on the nearer way round */
function evenly(
  recorded: readonly LiveInstant[],
  of: (instant: LiveInstant) => number,
  count: number,
  turns: boolean,
): Float64Array {
  const [start, end] = [recorded[0]!.time, recorded.at(-1)!.time];
  const values = recorded.map(of);
  if (turns) for (let i = 1; i < values.length; i += 1) values[i] = nearestTurn(values[i]!, values[i - 1]!);
  let k = 0;
  return Float64Array.from({ length: count }, (_, i) => {
    const time = start + ((end - start) * i) / (count - 1);
    while (k < recorded.length - 2 && recorded[k + 1]!.time < time) k += 1;
    const [a, b] = [recorded[k]!, recorded[k + 1]!];
    const part = b.time > a.time ? Math.min(1, Math.max(0, (time - a.time) / (b.time - a.time))) : 1;
    return values[k]! + (values[k + 1]! - values[k]!) * part;
  });
}

/** As few looks as say how it turned. */
function looksOf(pan: Float64Array, tilt: Float64Array): GazeRecorded['looks'] {
  const last = pan.length - 1;
  const every = Math.max(1, Math.ceil(last / (MOST_LOOKS - 2)));
  const looks: GazeRecorded['looks'] = [];
  const look = (i: number) => ({ at: i / last, pan: pan[i]!, tilt: tilt[i]! });
  for (let i = 0; i < last; i += every) {
    const before = looks.at(-1);
    const now = look(i);
    const moved = !before || Math.hypot(now.pan - before.pan, now.tilt - before.tilt) > SAME_LOOK;
    if (!moved) continue;
    // What stood still until just now stays so until then.
    if (before && now.at - before.at > (1.5 * every) / last) looks.push(look(i - every));
    looks.push(now);
  }
  return [...looks.slice(0, MOST_LOOKS - 1), look(last)];
}
