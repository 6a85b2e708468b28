import {
  MOST_KEPT,
  MOST_LOOKS,
  MOST_PACE_ITEMS,
  MOST_POSES,
  PACE_LIMITS,
  type Glide,
  type Orbit,
  type Travel,
  type Vec3,
  type WayAnchor,
} from '../document/index.ts';
import { anglesOf, nearestTurn } from '../geometry/index.ts';
import { followed, PlanCurve, SpaceWay } from '../path/index.ts';
import type { CompiledMove } from './sample.ts';
import { besideAsTheyGo, besidePlaces, leanKeys, movesCamera } from './taken-tracks.ts';

/** An orbit becomes poses so far apart, radians of its turn, and no fewer than so many. */
const POSE_TURN = Math.PI / 18;
const FEWEST = 9;
/** What tracks turn and shift has as many a second. */
const POSES_A_SECOND = 4;

/** A way is followed as closely as this part of its length. */
const FOLLOWED = 1 / 3000;
/** What goes on between poses is taken over from instants so far apart, seconds. */
const INSTANT = 1 / 30;

/** An orbit as a travel round its subject, that gives its pictures. @param move the orbit as it is played */
export function orbitToTravel(body: Orbit, move: CompiledMove, newId: () => string): Travel {
  const { lens, light, tracks } = body;
  const turned = Math.abs(body.sweep) / POSE_TURN;
  const shifted = movesCamera(tracks) ? POSES_A_SECOND * move.duration : 0;
  const pieces = Math.min(MOST_POSES - 1, Math.max(FEWEST, Math.ceil(turned), Math.ceil(shifted)));
  const subject = move.looks[0]?.at(0) ?? body.pivot.point;
  const poses = instantsOf(move, pieces).map((instant, i) => {
    const { position, orientation } = move.sampleAt(instant);
    return { id: newId(), time: (move.duration * i) / pieces, hold: 0, position, orientation, span: 'round' as const };
  });
  const runs = body.shape === 'constant' || body.shape === 'carry';
  const beside =
    move.loops || body.together
      ? besideAsTheyGo(move.channels, instantsOf(move, Math.ceil(move.duration / INSTANT)), newId)
      : besidePlaces(tracks, (anchor) => anchor);
  return {
    kind: 'travel',
    poses,
    turning: 'level',
    ends: runs ? 'running' : 'rest',
    subject,
    gaze: { kind: 'kept' },
    lens,
    light,
    ...(beside && { tracks: beside }),
  };
}

/**
 * A move that is placed by time as a glide: its way as a path with heights, its looks as recorded, its pace kept as it was;
 * where somebody gives it another one, its stays are pauses. Null where it gets nowhere.
 */
export function travelToGlide(body: Travel, move: CompiledMove, newId: () => string): Glide | null {
  const wanted = Math.max(2, Math.ceil(move.duration / INSTANT));
  const each = Math.ceil(wanted / (MOST_KEPT - 1));
  const instants = each * Math.ceil(wanted / each);
  const times = instantsOf(move, instants);
  const samples = times.map((time) => move.sampleAt(time));
  const places = samples.map(({ position }) => position);
  const angles = samples.map(({ orientation }) => anglesOf(orientation));
  const goneTo = distances(places);
  if (!(goneTo.at(-1)! > 0)) return null;
  const { path, pointOf } = followed(places, {
    closed: false,
    close: goneTo.at(-1)! * FOLLOWED,
    smooth: true,
    rises: true,
    newId,
    surface: () => null,
  });
  const curve = new PlanCurve(path);
  if (!(curve.length > 0)) return null;
  let pan = 0;
  const every = Math.max(1, Math.ceil(samples.length / MOST_LOOKS));
  const looks = angles
    .map((look, i) => {
      pan = i === 0 ? look.pan : nearestTurn(look.pan, pan);
      return { at: i / instants, pan, tilt: look.tilt };
    })
    .filter((_, i) => i % every === 0 || i === instants);
  const { lens, light, poses } = body;
  const start = poses[0]?.time ?? 0;
  const way = new SpaceWay(path, curve);
  const gone = partsGone(way, goneTo, pointOf);
  const stationAt = (time: number): WayAnchor => {
    const at = Math.min(instants, Math.max(0, (time / move.duration) * instants));
    const [from, to] = [gone[Math.floor(at)]!, gone[Math.ceil(at)]!];
    return { by: 'station', station: (from + (to - from) * (at % 1)) * way.length };
  };
  const pauses = poses
    .filter(({ hold }) => hold >= PACE_LIMITS.pause[0])
    .map(({ time, hold }) => ({ id: newId(), anchor: stationAt(time - start), seconds: hold }));
  const beside = besidePlaces(body.tracks, (anchor) =>
    anchor.by === 'station' && move.path ? stationAt(move.path.timeAt(anchor.station)) : anchor,
  );
  const roll = leanKeys(
    angles.map(({ roll }) => roll),
    times,
    newId,
  );
  return {
    kind: 'glide',
    path,
    height: { by: 'drawn' },
    pace: {
      by: 'duration',
      speed: 1,
      duration: move.duration,
      shape: body.ends === 'rest' ? 'ease both' : 'constant',
      kept: gone.filter((_, i) => i % each === 0),
      ...(pauses.length > 0 && { pauses: pauses.slice(0, MOST_PACE_ITEMS) }),
    },
    gaze: { kind: 'recorded', looks },
    lens,
    light,
    ...((beside || roll) && { tracks: { ...beside, ...(roll && { roll }) } }),
  };
}

/** Even times from the beginning of a move to its end, seconds: the last instant of what closes is its first. */
const instantsOf = ({ duration, loops }: CompiledMove, pieces: number): number[] =>
  Array.from({ length: pieces + 1 }, (_, i) => Math.min((duration * i) / pieces, loops ? duration - 1e-9 : duration));

/** How far it is to every place along them, metres. */
function distances(places: readonly Vec3[]): number[] {
  let gone = 0;
  return places.map(([x, y, z], i) => {
    const [a, b, c] = places[Math.max(0, i - 1)]!;
    return (gone += Math.hypot(x - a, y - b, z - c));
  });
}

/**
 * How much of a way is gone at every instant, as parts of it: between two of its nodes as much as of the way it is taken from.
 * @param gone of the way it is taken from, at every instant, metres @param pointOf the instant that each node is taken from
 */
function partsGone(way: SpaceWay, gone: readonly number[], pointOf: readonly (number | null)[]): number[] {
  const parts: number[] = gone.map(() => 0);
  let [from, start] = [0, 0];
  pointOf.forEach((to, node) => {
    if (to === null || to === from) return;
    const end = way.stationOfNode(node)! / way.length;
    const whole = gone[to]! - gone[from]!;
    for (let i = from + 1; i <= to; i += 1)
      parts[i] = start + (end - start) * (whole > 0 ? (gone[i]! - gone[from]!) / whole : 1);
    [from, start] = [to, end];
  });
  return parts.map((part, i) => (i === gone.length - 1 ? 1 : Math.min(1, part)));
}
