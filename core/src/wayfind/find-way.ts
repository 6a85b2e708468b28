import type { Path, PathNode, Vec3 } from '../document/index.ts';
import { nearestTurn } from '../geometry/index.ts';
import { findObstacles, profilePath, tableAt, type UniformTable } from '../move/index.ts';
import { mainPoints, PlanCurve } from '../path/index.ts';
import type { Footing, Walkway } from '../survey/index.ts';
import { drawBand, settle, type WayWalker } from './band.ts';
import { roomAbout } from './clearance.ts';
import { pastLeaf } from './past-leaf.ts';

/**
 * What bends less than this is drawn straight, and corners are rounded by no more than that, metres: as few nodes and as
 * round as the room about them allows.
 */
const DRAWN = [
  { straight: 0.2, rounding: 2 },
  { straight: 0.12, rounding: 1.5 },
  { straight: 0.06, rounding: 1.2 },
  { straight: 0.03, rounding: 1.2 },
  { straight: 0.015, rounding: 0.6 },
  { straight: 0.006, rounding: 0.2 },
] as const;
/** More nodes are worth so much room, metres. */
const WORTH_NODES = 0.01;
/** A drawn way is looked at so often, metres. */
const LOOKED = 0.05;
/** Leaves that one way goes past at most. */
const MOST_LEAVES = 8;
/** Where one is to be is passed no farther away than this, however round the bend there could be, metres. */
const PAST_STOP = 0.15;
/** Two places are one, metres. */
const SAME_PLACE = 0.05;

/** Legs that were drawn taut already, by their corners: ways through the same places have many of them in common. */
export type Bands = Map<string, Vec3[]>;

interface WayOptions {
  /** Places that it must not lead over, metres. */
  avoid?: readonly Vec3[];
  /** Of other ways on the same footing, for the same walker. */
  bands?: Bands;
}

/** A way through all places, as a path to walk on. */
export interface FoundWay {
  found: true;
  path: Path;
  /** Index of the node at each place. */
  stops: number[];
  /** metres */
  length: number;
  /** Is there floor all the way, and nothing in it but doors? */
  clear: boolean;
  /** Doors that are shut. */
  shut: Shut[];
}

/** A door in the way. */
export interface Shut {
  /** Where the eye meets it, metres. */
  at: Vec3;
  /** Index of the place that the way leads to from there. */
  stop: number;
}

/** No way: between which two of the places, by number. */
export interface NoWay {
  found: false;
  from: number;
  to: number;
}

/**
 * A path through places in their order, as a person walks it: the shortest way on the navigation mesh, drawn taut and
 * kept off from what stands beside it, with rounded bends.
 * @param places on the floor, metres
 * @param newId names the nodes
 */
export function findWay(
  walkway: Walkway,
  places: readonly Vec3[],
  footing: Footing,
  walker: WayWalker,
  newId: () => string,
  { avoid = [], bands = new Map() }: WayOptions = {},
): FoundWay | NoWay {
  const wayPast = (shut: readonly Vec3[], through: readonly Vec3[], who: WayWalker): FoundWay | NoWay =>
    drawnWay(shut, through, { walkway, footing, walker: who, newId, bands });
  // A leaf that stands open is gone past; one that is shut is gone round where there is another way, else opened.
  const leaves = { ...walker, leaves: true };
  let past = wayPast(avoid, places, leaves);
  const via = [...places];
  for (let k = 0; k < MOST_LEAVES && past.found && past.shut.length > 0; k += 1) {
    const [{ at, stop }] = past.shut as [Shut];
    const end = pastLeaf(at, at[1] - walker.eyeHeight, footing, walker);
    if (!end) break;
    via.splice(stop, 0, end);
    past = wayPast(avoid, via, leaves);
  }
  if (past.found && via.length > places.length) past = withoutVia(past, via, places);
  if (!past.found || (past.clear && past.shut.length === 0)) return past;
  const shut = [...avoid, ...past.shut.map(({ at }) => at)];
  const round = wayPast(shut, places, leaves);
  if (round.found && round.clear && round.shut.length < past.shut.length) return round;
  return past.clear ? past : wayPast(avoid, places, { ...walker, leaves: false });
}

/** What was led past on the way is no place of it. */
const withoutVia = (way: FoundWay, via: readonly Vec3[], places: readonly Vec3[]): FoundWay => ({
  ...way,
  stops: way.stops.filter((_, i) => places.includes(via[i]!)),
});

/** What ways are drawn with. */
interface Drawing {
  walkway: Walkway;
  footing: Footing;
  walker: WayWalker;
  newId: () => string;
  bands: Bands;
}

/** @param shut places that are kept away from, metres */
function drawnWay(
  shut: readonly Vec3[],
  places: readonly Vec3[],
  { walkway, footing, walker, newId, bands: drawn }: Drawing,
): FoundWay | NoWay {
  const legs: Vec3[][] = [];
  for (let i = 1; i < places.length; i += 1) {
    const corners = walkway.way(places[i - 1]!, places[i]!, shut);
    if (!corners) return { found: false, from: i - 1, to: i };
    const leg = onFloor(corners, footing);
    // A place under a table is beside it.
    leg[0] = legs.at(-1)?.at(-1) ?? settle(leg[0]!, footing, walker);
    if (leg.length > 1) leg[leg.length - 1] = settle(leg.at(-1)!, footing, walker);
    legs.push(leg);
  }
  const bands = legs.map((leg) => {
    const key = `${walker.leaves ? 'leaves ' : ''}${leg.join(' ')}`;
    const band = drawn.get(key) ?? drawBand(leg, footing, walker);
    drawn.set(key, band);
    return band;
  });
  const made: ReturnType<typeof judged>[] = [];
  for (const { straight, rounding } of DRAWN) {
    const next = judged(pathOf(bands, straight, rounding, newId), footing, walker);
    if (next.free >= walker.radius) return next.way;
    made.push(next);
  }
  const most = Math.max(...made.map(({ free }) => free));
  const best = made.find(({ free }) => free >= most - WORTH_NODES)!.way;
  if (best.clear) return best;
  // A bend that does not fit: the plain way, without any.
  const plain = judged(pathOf(legs, DRAWN.at(-1)!.straight, 0, newId), footing, walker).way;
  return plain.clear ? plain : best;
}

/** A mesh is a little above or below its floor. */
const onFloor = (corners: readonly Vec3[], footing: Footing): Vec3[] =>
  corners
    .map(([x, y, z]): Vec3 => [x, footing.surfaceNear(x, z, y) ?? y, z])
    .filter((p, i, all) => i === 0 || Math.hypot(p[0] - all[i - 1]![0], p[2] - all[i - 1]![2]) > SAME_PLACE);

interface Drawn {
  path: Path;
  stops: number[];
}

function pathOf(legs: readonly Vec3[][], straight: number, rounding: number, newId: () => string): Drawn {
  const places: Vec3[] = [];
  const stops = [0];
  for (const leg of legs) {
    const kept = mainPoints(leg, straight).map((i) => leg[i]!);
    places.push(...(places.length > 0 ? kept.slice(1) : kept));
    stops.push(places.length - 1);
  }
  const nodes = places.map(([x, y, z], i): PathNode => {
    const legLength = (k: number) => {
      const [a, b] = [places[k], places[k + 1]];
      return a && b ? Math.hypot(b[0] - a[0], b[2] - a[2]) : Infinity;
    };
    const turn = turnAt(places, i);
    // A rounding takes r · tan(θ / 2) of either leg: half of the shorter one at most.
    const most = Math.min(legLength(i - 1), legLength(i)) / 2 / Math.max(Math.tan(turn / 2), 1e-3);
    // And it cuts r · (1 / cos (θ / 2) − 1) off a corner.
    const past = stops.includes(i)
      ? PAST_STOP / Math.max(1 / Math.cos(Math.min(turn, SHARPEST) / 2) - 1, 1e-6)
      : Infinity;
    const radius = Number(Math.max(0, Math.min(rounding, most, past)).toFixed(3));
    return { id: newId(), x: tidy(x), y, z: tidy(z), surface: true, kind: 'corner', radius };
  });
  return { path: { nodes, closed: false }, stops };
}

const tidy = (value: number) => Number(value.toFixed(3));

/** Who turns back more sharply than this turns on the spot, radians. */
const SHARPEST = 3.1;

/** By how much a line turns at a point, radians. */
function turnAt(places: readonly Vec3[], i: number): number {
  const [a, p, b] = [places[i - 1], places[i]!, places[i + 1]];
  if (!a || !b) return 0;
  return Math.abs(nearestTurn(Math.atan2(b[2] - p[2], b[0] - p[0]) - Math.atan2(p[2] - a[2], p[0] - a[0])));
}

/** What a drawn way is, and how much room it leaves. */
function judged({ path, stops }: Drawn, footing: Footing, walker: WayWalker): { way: FoundWay; free: number } {
  const curve = new PlanCurve(path);
  const { floor, gaps, walkLine } = profilePath(path, curve, footing, walker);
  const met = findObstacles(curve, footing, walkLine, walker.eyeHeight);
  const shut = met
    .filter(({ kind }) => kind === 'closed door')
    .map(({ point: [x, , z], from }): Shut => {
      const stop = stops.findIndex((node) => curve.nodeStations[node]! >= from);
      return { at: [x, tableAt(floor, from) + walker.eyeHeight, z], stop };
    });
  const clear = gaps.length === 0 && met.length === shut.length;
  return {
    way: { found: true, path, stops, length: curve.length, clear, shut },
    free: clear ? leastRoom(curve, floor, footing, walker) : -1,
  };
}

/** The least room beside a way, metres, up to what the shoulders need. */
function leastRoom(curve: PlanCurve, floor: UniformTable, footing: Footing, walker: WayWalker): number {
  const count = Math.max(1, Math.ceil(curve.length / LOOKED));
  const point = new Float64Array(2);
  let least = walker.radius;
  for (let i = 0; i <= count; i += 1) {
    const station = (curve.length * i) / count;
    curve.pointAt(station, point);
    least = Math.min(
      least,
      roomAbout(footing, point[0]!, tableAt(floor, station), point[1]!, walker, walker.radius).free,
    );
  }
  return least;
}
