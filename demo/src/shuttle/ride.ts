import { Quaternion, Vector3 } from 'three';
import type { Movement, Point, Station } from '../kit/index.ts';
import { track } from './track.ts';

/** The car's origin lies this far above the rails' stations, metres. */
const ON_RAILS = 0.07;
/** Metres a second on the way, and how fast it gets there, metres a second squared. */
const [PACE, PUSH] = [3.6, 0.45];
/** People get in. */
const WAIT = 2;
/** A key for each of these, seconds. */
const SPACING = 0.5;
/** The car stops this far before the rails end, metres. */
const BUFFER = 4;

/** The station where the car waits. */
export function stopStation(): Station {
  return track().reduce((best, station) => (Math.abs(station.at[0] - 11) < Math.abs(best.at[0] - 11) ? station : best));
}

/** How the car stands at a station: along the rails, nose up where they climb. */
function stand(way: readonly Station[], distance: number): { at: Vector3; turn: Quaternion } {
  const spacing = way[1]!.distance - way[0]!.distance;
  const i = Math.min(way.length - 2, Math.floor(distance / spacing));
  const [p, q] = [new Vector3(...way[i]!.at), new Vector3(...way[i + 1]!.at)];
  const at = p.clone().lerp(q, distance / spacing - i);
  const [from, to] = [way[Math.max(0, i - 1)]!, way[Math.min(way.length - 1, i + 2)]!];
  const along = new Vector3(...to.at).sub(new Vector3(...from.at));
  const pan = Math.atan2(-along.z, along.x);
  const climb = Math.atan2(along.y, Math.hypot(along.x, along.z));
  const turn = new Quaternion()
    .setFromAxisAngle(new Vector3(0, 1, 0), pan)
    .multiply(new Quaternion().setFromAxisAngle(new Vector3(0, 0, 1), climb));
  return { at: at.setY(at.y + ON_RAILS), turn };
}

/** Where the car waits, in the commission's axes: placed so, its movement begins without a jump. */
export function atTheStop(): { at: Point; pan: number } {
  const { at, along } = stopStation();
  return { at: [at[0], at[1] + ON_RAILS, at[2]], pan: Math.atan2(-along[1], along[0]) };
}

/** Metres gone after some seconds of driving: it pulls away and brakes evenly. */
function gone(time: number, length: number): number {
  const ramp = PACE / PUSH;
  const whole = length / PACE + ramp;
  const t = Math.min(whole, Math.max(0, time));
  if (t < ramp) return (PUSH * t * t) / 2;
  if (t > whole - ramp) return length - (PUSH * (whole - t) ** 2) / 2;
  return (PUSH * ramp * ramp) / 2 + PACE * (t - ramp);
}

/** From the stop round the hill to the end of the rails, as the car's own file has it: seen from where it waits. */
export function ride(): Movement {
  const way = track();
  const start = stopStation().distance;
  const length = way.at(-1)!.distance - BUFFER - start;
  const home = atTheStop();
  const back = new Quaternion().setFromAxisAngle(new Vector3(0, 1, 0), home.pan).invert();
  const seconds = WAIT + length / PACE + PACE / PUSH;
  const keys = Array.from({ length: Math.ceil(seconds / SPACING) + 1 }, (_, i) => {
    const time = Math.min(seconds, i * SPACING);
    const { at, turn } = stand(way, start + gone(time - WAIT, length));
    const local = at.sub(new Vector3(...home.at)).applyQuaternion(back);
    const [x, y, z, w] = turn.premultiply(back).toArray();
    return { time, at: local.toArray() as Point, turn: [x, y, z, w] as const };
  });
  return { name: 'Ride round the hill', part: 'Shuttle / Car', pivot: [0, 0, 0], keys };
}
