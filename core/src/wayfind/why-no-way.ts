import type { Path, Vec3, Walker } from '../document/index.ts';
import { pieceAt, TRIANGLE, type TriangleSoup } from '../geometry/index.ts';
import { profilePath, tableAt } from '../move/index.ts';
import { PlanCurve } from '../path/index.ts';
import { SURFACE, Walkway, type Footing, type WalkedSurvey } from '../survey/index.ts';

/** What keeps a walker from a place, and where; metres. */
export type Block =
  /** How much there is, and how much is needed. */
  | { reason: 'narrow' | 'low' | 'step'; size: number; needed: number; at: Vec3 }
  /** The floor ends, and how far away what leads on begins: in plan, and how much higher. */
  | { reason: 'gap'; size: number; rise: number; at: Vec3 }
  | { reason: 'wall'; at: Vec3 };

/** Walkers that get through where people do not, the least unlike them first: one that does says what the matter is. */
const SLIMMER = [0.8, 0.6, 0.4];
const SLIMMEST = 0.08;
const LOWER = [1.6, 1.2];
const CRAWLING = 0.8;
const HIGHER = [0.35, 0.6];
/** Tiles of a navigation mesh are joined over twice the step: more than half a body's height, and it leads through floors. */
const CLIMBING = 0.9;
const LOW_AND_CLIMBING = { height: 1.2, step: 0.6 };
/** Passages are measured so often along a way, metres; at these heights over the floor; and up to so wide. */
const SPACING = 0.05;
const HEIGHTS = [0.5, 0.9, 1.3, 1.6] as const;
const WIDEST = 2;
/** Halvings of a way until it is known where a walker's reach along it ends. */
const REACH_STEPS = 7;

/**
 * Why nobody gets from one place to another: somebody slimmer, lower or who climbs higher is sent, and the place is looked
 * for that only they pass, also somebody who is several of these. Where they do not get there either, it is what lies
 * between as far as they get and what leads on. Null where nothing near does.
 * @param walkway of the walker
 */
export async function whyNoWay(
  walkway: Walkway,
  footing: Footing,
  survey: WalkedSurvey,
  [from, to]: readonly [Vec3, Vec3],
  walker: Walker,
): Promise<Block | null> {
  const soup = withoutLeaves(footing);
  const walkwayOf = (other: Partial<Walker>) => Walkway.over(soup, survey, { ...walker, ...other });
  const wayOf = async (other: Partial<Walker>) => {
    const theirs = await walkwayOf(other);
    const way = theirs?.way(from, to) ?? null;
    theirs?.free();
    return way;
  };
  const slimmest = { radius: Math.min(SLIMMEST, walker.radius) };
  const [lowest, highest] = [{ height: CRAWLING }, { step: CLIMBING }];
  const slim = await wayOf(slimmest);
  if (slim) {
    const place = narrowPlace(slim, footing, walker);
    if (place) return place;
    // Nothing beside them is so near: it is what is under their feet, as where a stair begins at a wall.
    const [radius, way] = await leastOf(
      SLIMMER.map((part) => part * walker.radius),
      (value) => wayOf({ radius: value }),
      [SLIMMEST, slim],
    );
    return { reason: 'narrow', size: 2 * radius, needed: 2 * walker.radius, at: reachEnd(walkway, way) };
  }
  for (const [reason, extreme, others, walkerOf] of [
    ['low', CRAWLING, LOWER, (height: number) => ({ height })],
    ['step', CLIMBING, HIGHER, (step: number) => ({ step })],
  ] as const) {
    const last = await wayOf(walkerOf(extreme));
    if (!last) continue;
    const [, way] = await leastOf(others, (value) => wayOf(walkerOf(value)), [extreme, last]);
    const block = gapOf(reason, way, footing, walker);
    if (block) return block;
  }
  // Two things or three may be the matter at one place, as on a narrow stair under a ceiling: one of them is said.
  for (const others of [{ ...slimmest, ...lowest }, { ...slimmest, ...highest }, LOW_AND_CLIMBING]) {
    const way = await wayOf(others);
    const block = way && blockOn(way, footing, walker);
    if (block) return block;
  }
  const ablest = await walkwayOf({ ...slimmest, ...LOW_AND_CLIMBING });
  const way = ablest?.way(from, to);
  const shores = way ? null : ablest?.shores(from, to);
  ablest?.free();
  if (way) return blockOn(way, footing, walker);
  return shores ? between(shores, footing, walker) : null;
}

const blockOn = (way: Vec3[], footing: Footing, walker: Walker): Block | null =>
  gapOf('low', way, footing, walker) ?? gapOf('step', way, footing, walker) ?? narrowPlace(way, footing, walker);

/** What lies between the floor that is reached and the floor that leads on. */
function between([here, there]: readonly [Vec3, Vec3], footing: Footing, walker: Walker): Block {
  const rise = there[1] - here[1];
  const wall = HEIGHTS.map((height) => {
    const raised = (p: Vec3): Vec3 => [p[0], Math.max(here[1], there[1]) + height, p[2]];
    const [a, b] = [raised(here), raised(there)];
    const met = footing.solids.between(a, b).find(({ triangle }) => footing.kindOf(triangle) !== SURFACE.door);
    return met && (a.map((value, k) => value + met.at * (b[k]! - value)) as Vec3);
  }).find((at) => at !== undefined);
  if (wall) return { reason: 'wall', at: wall };
  const { gaps } = lineOf([here, there], footing, walker);
  // The mesh keeps a little away from edges: how wide a gap is, the floor itself says.
  const holes = gaps.filter(({ reason }) => reason === 'no floor');
  const size = Math.max(0, ...holes.map((hole) => hole.size));
  return { reason: 'gap', size: size > 0 ? size : Math.hypot(there[0] - here[0], there[2] - here[2]), rise, at: here };
}

/** The first of some walkers who gets through, and the way; the last one, of whom it is known, where none of them does. */
async function leastOf(
  values: readonly number[],
  wayOf: (value: number) => Promise<Vec3[] | null>,
  last: [number, Vec3[]],
): Promise<[number, Vec3[]]> {
  for (const value of values) {
    const way = await wayOf(value);
    if (way) return [value, way];
  }
  return last;
}

/** The last place of a way, about, to which a walker gets from where it begins. */
function reachEnd(walkway: Walkway, corners: readonly Vec3[]): Vec3 {
  const [from] = corners as [Vec3];
  if (corners.length < 2) return from;
  const stations = [0];
  corners.slice(1).forEach((corner, i) => {
    stations.push(stations[i]! + Math.hypot(...corner.map((value, k) => value - corners[i]![k]!)));
  });
  const placeAt = (station: number): Vec3 => {
    const i = pieceAt(stations, station);
    const [a, b, length] = [corners[i]!, corners[i + 1]!, stations[i + 1]! - stations[i]!];
    const t = length > 0 ? (station - stations[i]!) / length : 0;
    return [0, 1, 2].map((k) => a[k]! + t * (b[k]! - a[k]!)) as Vec3;
  };
  let [near, far] = [0, stations.at(-1)!];
  for (let i = 0; i < REACH_STEPS; i += 1) {
    const middle = (near + far) / 2;
    if (walkway.way(from, placeAt(middle))) near = middle;
    else far = middle;
  }
  return placeAt(near);
}

function withoutLeaves({ walkable, others, otherKinds }: Footing): TriangleSoup {
  const kept = otherKinds.reduce((count, kind) => count + (kind === SURFACE.door ? 0 : 1), 0);
  const soup = new Float32Array(walkable.length + kept * TRIANGLE);
  soup.set(walkable);
  let at = walkable.length;
  otherKinds.forEach((kind, i) => {
    if (kind === SURFACE.door) return;
    soup.set(others.subarray(i * TRIANGLE, (i + 1) * TRIANGLE), at);
    at += TRIANGLE;
  });
  return soup;
}

/** The straight pieces of a way, and the floor under them. */
function lineOf(corners: readonly Vec3[], footing: Footing, walker: Walker) {
  const path: Path = {
    nodes: corners.map(([x, y, z], i) => ({ id: String(i), x, y, z, surface: true, kind: 'corner', radius: 0 })),
    closed: false,
  };
  const curve = new PlanCurve(path);
  return { curve, ...profilePath(path, curve, footing, walker) };
}

/** The narrowest passage of a way, where that is less than the walker is wide. */
function narrowPlace(corners: readonly Vec3[], footing: Footing, walker: Walker): Block | null {
  const { curve, floor } = lineOf(corners, footing, walker);
  const [at, way] = [new Float64Array(2), new Float64Array(2)];
  let [size, place]: [number, Vec3 | null] = [2 * walker.radius, null];
  const steps = Math.max(1, Math.ceil(curve.length / SPACING));
  for (let i = 0; i <= steps; i += 1) {
    const station = (curve.length * i) / steps;
    curve.pointAt(station, at);
    curve.directionAt(station, way);
    const y = tableAt(floor, station);
    const side = (sign: number) =>
      Math.min(
        ...HEIGHTS.map(
          (height) =>
            footing.solids.first(
              [at[0]!, y + height, at[1]!],
              [-way[1]! * sign, 0, way[0]! * sign],
              WIDEST,
              (triangle) => footing.kindOf(triangle) !== SURFACE.door,
            )?.distance ?? WIDEST,
        ),
      );
    const width = side(1) + side(-1);
    if (width < size) [size, place] = [width, [at[0]!, y, at[1]!]];
  }
  return place && { reason: 'narrow', size, needed: 2 * walker.radius, at: place };
}

/** The highest step, or the lowest place, that the walker does not take. */
function gapOf(reason: 'low' | 'step', corners: readonly Vec3[], footing: Footing, walker: Walker): Block | null {
  const { curve, gaps, floor } = lineOf(corners, footing, walker);
  const fitting = gaps.filter((gap) => gap.reason === (reason === 'low' ? 'headroom' : 'step'));
  const [worst] = fitting.sort((a, b) => (reason === 'low' ? a.size - b.size : b.size - a.size));
  if (!worst) return null;
  const point = new Float64Array(2);
  curve.pointAt(worst.from, point);
  const needed = reason === 'low' ? walker.height : walker.step;
  return { reason, size: worst.size, needed, at: [point[0]!, tableAt(floor, worst.from), point[1]!] };
}
