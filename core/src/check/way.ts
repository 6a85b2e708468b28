import type { Vec3, Walker } from '../document/index.ts';
import {
  CRAWL,
  findObstacles,
  profileFloor,
  tableAt,
  type FloorGap,
  type MovePath,
  type Obstacle,
  type WalkedGround,
} from '../move/index.ts';
import type { Footing } from '../survey/index.ts';

/** Something on a walk's way that a walker could not do. */
export interface WayFinding {
  rule: FloorGap['reason'] | Obstacle['kind'];
  /** Stations, metres. */
  from: number;
  to: number;
  /** Length without floor, height of the step, or free height, metres; null for what is in the way. */
  size: number | null;
  /** Where it begins, metres. */
  point: Vec3;
}

/** What {@link wayFindings} reads of a walk. */
interface Way {
  ground: Pick<WalkedGround, 'gaps' | 'obstacles'> | null;
  path: Pick<MovePath, 'placeAt'> | null;
}

/** Where a walk has no floor, too high a step or too little room, and what it goes through, in the order of the way. */
export function wayFindings({ ground, path }: Way): WayFinding[] {
  if (!ground || !path) return [];
  const gaps = ground.gaps.map(({ reason, from, to, size }): WayFinding => ({
    // What leaves less room than that over the floor stands in the way: a table, not a beam.
    rule: reason === 'headroom' && size < CRAWL ? 'low' : reason,
    from,
    to,
    size: reason === 'headroom' && size < CRAWL ? null : size,
    point: path.placeAt(from),
  }));
  const beams = gaps.filter(({ rule }) => rule === 'headroom');
  const met = ground.obstacles
    // A beam that the eye meets is a low place already.
    .filter((thing) => thing.knee || !beams.some((beam) => together(beam, thing)))
    .map(({ kind, from, to, point }): WayFinding => ({ rule: kind, from, to, size: null, point }));
  return joinThings([...gaps, ...met].sort((a, b) => a.from - b.from));
}

/** Two findings nearer than this are at the same place, metres. */
const SAME_PLACE = 0.5;

const together = (a: { from: number; to: number }, b: { from: number; to: number }) =>
  a.from <= b.to + SAME_PLACE && a.to >= b.from - SAME_PLACE;

/** A table is met, one is under it, and it is met again: one thing. What reaches higher than a table says it alone. */
function joinThings(findings: readonly WayFinding[]): WayFinding[] {
  const out: WayFinding[] = [];
  for (const finding of findings) {
    const before = out.findLast(({ rule, to }) => rule === 'low' && to >= finding.from - SAME_PLACE);
    if (finding.rule === 'low' && before) before.to = Math.max(before.to, finding.to);
    else out.push({ ...finding });
  }
  const tall = out.filter(({ rule }) => rule === 'wall' || rule === 'closed door' || rule === 'glass');
  return out.filter((one) => one.rule !== 'low' || !tall.some((thing) => together(one, thing)));
}

/** A place on a floor, metres. */
interface Place {
  x: number;
  y: number;
  z: number;
}

/** What is in the way of a straight line between two places, before it is drawn; stations from the first place on. */
export const lineFindings = (...line: Parameters<typeof lineWay>): WayFinding[] => lineWay(...line).findings;

/** A straight line as a way: what is in it, and the heights at which it begins and ends. */
function lineWay(
  from: Place,
  to: Place,
  footing: Footing,
  walker: Pick<Walker, 'height' | 'step'>,
  eyeHeight: number,
): { findings: WayFinding[]; start: number; end: number } {
  const length = Math.hypot(to.x - from.x, to.z - from.z);
  if (length < 0.01 || length > LONGEST_LINE) return { findings: [], start: from.y, end: to.y };
  const at = (station: number): [number, number] => [
    from.x + ((to.x - from.x) * station) / length,
    from.z + ((to.z - from.z) * station) / length,
  ];
  const line = {
    length,
    pointAt: (station: number, out: Float64Array) => out.set(at(station)),
    pointsAt: (stations: ArrayLike<number>, out: Float64Array) => {
      for (let i = 0; i < stations.length; i += 1) out.set(at(stations[i]!), 2 * i);
    },
  };
  const anchors = [from, to].map(({ y }, i) => ({ station: i * length, y, loose: false }));
  const profile = profileFloor(line, footing, walker, anchors, false);
  const findings = wayFindings({
    ground: { gaps: profile.gaps, obstacles: findObstacles(line, footing, profile.walkLine, eyeHeight) },
    path: {
      placeAt: (station) => {
        const [x, z] = at(station);
        return [x, tableAt(profile.floor, station), z];
      },
    },
  });
  return { findings, start: profile.floor.values[0]!, end: profile.floor.values.at(-1)! };
}

/** Heights nearer than this are one floor, metres. */
const SAME_FLOOR = 0.1;

/** A longer line is not looked at while a hand draws it, metres. */
const LONGEST_LINE = 200;

/**
 * The surface that a press on a plan means while a path is drawn: what the plan shows there, unless one cannot walk to it
 * and can walk to another one. So a stair leads up without anyone changing the storey.
 * @param last the node before, if any
 * @param cut height of the plan's cut, metres
 * @returns null where there is nothing to stand on
 */
export function surfaceFor(
  { x, z }: { x: number; z: number },
  last: Place | undefined,
  footing: Footing,
  walker: Pick<Walker, 'height' | 'step'>,
  eyeHeight: number,
  cut: number,
): number | null {
  const shown = footing.surfaceUnder(x, z, cut);
  if (!last || shown === null) return shown;
  const free = (y: number) => {
    const { findings, start, end } = lineWay(last, { x, y, z }, footing, walker, eyeHeight);
    // A line that begins or ends on another floor has not led from here to there.
    return findings.length === 0 && Math.abs(start - last.y) < SAME_FLOOR && Math.abs(end - y) < SAME_FLOOR;
  };
  if (free(shown)) return shown;
  const others = footing.floors
    .surfacesAt(x, z)
    .filter((y) => y !== shown)
    .sort((a, b) => Math.abs(a - last.y) - Math.abs(b - last.y));
  return others.find(free) ?? shown;
}
