import type { Path, Vec3, Walker } from '../document/index.ts';
import { TRIANGLE, type TriangleSoup } from '../geometry/index.ts';
import { profilePath, tableAt } from '../move/index.ts';
import { PlanCurve } from '../path/index.ts';
import { SURFACE, Walkway, type Footing, type WalkedSurvey } from '../survey/index.ts';

/** What keeps a walker from a place, where it is, how much there is, and how much is needed; metres. */
export interface Block {
  reason: 'narrow' | 'low' | 'step';
  size: number;
  needed: number;
  at: Vec3;
}

/** Walkers that get through where people do not: the first one that does says what the matter is. */
const SLIM = 0.08;
const CRAWLING = 0.8;
const CLIMBING = 1;
/** Passages are measured so often along a way, metres; at these heights over the floor; and up to so wide. */
const SPACING = 0.05;
const HEIGHTS = [0.5, 0.9, 1.3, 1.6] as const;
const WIDEST = 2;

/**
 * Why nobody gets from one place to another: somebody slimmer, lower or who climbs higher is sent, and the place is looked
 * for that only they pass. Null where they do not get there either.
 */
export async function whyNoWay(
  footing: Footing,
  survey: WalkedSurvey,
  [from, to]: readonly [Vec3, Vec3],
  walker: Walker,
): Promise<Block | null> {
  const soup = withoutLeaves(footing);
  const sent: readonly [Block['reason'], Walker][] = [
    ['narrow', { ...walker, radius: Math.min(SLIM, walker.radius) }],
    ['low', { ...walker, height: Math.min(CRAWLING, walker.height) }],
    ['step', { ...walker, step: Math.max(CLIMBING, walker.step) }],
  ];
  for (const [reason, other] of sent) {
    const way = (await Walkway.over(soup, survey, other))?.way(from, to);
    const block =
      way && (reason === 'narrow' ? narrowPlace(way, footing, walker) : gapOf(reason, way, footing, walker));
    if (block) return block;
  }
  return null;
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
