import type { Bounds, PathNode } from '../document/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';

/** What a hand that draws a path was drawn to. */
export type Snap =
  /** The middle between what stands to both sides, so wide apart, metres. */
  | { kind: 'passage'; width: number }
  /** An earlier node, by its place in the path. */
  | { kind: 'node'; index: number }
  /** Square to the last leg, or straight on. */
  | { kind: 'square' }
  | { kind: 'straight' }
  /** So far from what stands beside, metres. */
  | { kind: 'beside'; distance: number }
  /** In line with the middle of a thing, by its name. */
  | { kind: 'thing'; name: string };

/** A thing that a path may be laid out by. */
export interface SnapThing {
  name: string;
  bounds: Bounds;
}

export interface SnapPlace {
  x: number;
  z: number;
  snap: Snap | null;
}

interface SnapAsk {
  x: number;
  z: number;
  nodes: readonly PathNode[];
  footing: Footing;
  /** Of the floor there, metres; null where there is none. */
  floor: number | null;
  /** How far a hand is drawn, metres. */
  reach: number;
  /** Things of the site, where they are known. */
  things?: readonly SnapThing[];
}

/**
 * Where a hand that draws a path is drawn to: an earlier node, the middle of a door or a passage, a square leg, in line with
 * the middle of a thing, as far from what stands beside as the node before or by a usual distance.
 */
export function snapPlace(ask: SnapAsk): SnapPlace {
  const { x, z, nodes, footing, floor, reach } = ask;
  const node = nearestNode(x, z, nodes, reach);
  if (node) return node;
  if (floor === null) return squareTo(x, z, nodes, reach) ?? { x, z, snap: null };
  const passage = passageAt(footing, x, floor, z);
  if (passage && Math.hypot(passage.x - x, passage.z - z) <= reach)
    return { x: passage.x, z: passage.z, snap: { kind: 'passage', width: passage.width } };
  return squareTo(x, z, nodes, reach) ?? inLineWith(ask, floor) ?? offWall(ask, floor) ?? { x, z, snap: null };
}

function nearestNode(x: number, z: number, nodes: readonly PathNode[], reach: number): SnapPlace | null {
  let best: SnapPlace | null = null;
  let least = reach;
  // The last one is where the hand comes from.
  nodes.slice(0, -1).forEach((node, index) => {
    const away = Math.hypot(node.x - x, node.z - z);
    if (away > least) return;
    least = away;
    best = { x: node.x, z: node.z, snap: { kind: 'node', index } };
  });
  return best;
}

/** Passages are looked for across so many directions of half a turn, at these heights over the floor, metres. */
const DIRECTIONS = 24;
const HEIGHTS = [0.5, 1.2];
/** What is wider is no passage, metres. */
const WIDEST = 2.6;
/** A passage is the narrowest place for so far along it: a door in its wall, not a place in a corridor; metres. */
const ALONG = 0.7;
/** Beyond a door there is so much more room. */
const OPENS = 1.35;

/** A narrow place between things to both sides. */
export interface Passage {
  x: number;
  z: number;
  /** metres */
  width: number;
}

/**
 * The passage that a place lies in: the narrowest way across it, and the middle of that. Door leaves open, so they do not
 * count. Null in the open and in the middle of rooms and corridors.
 * @param y of the floor, metres
 */
export function passageAt(footing: Footing, x: number, y: number, z: number): Passage | null {
  let best: { dx: number; dz: number; left: number; right: number } | null = null;
  for (let k = 0; k < DIRECTIONS; k += 1) {
    const [dx, dz] = [Math.cos((k * Math.PI) / DIRECTIONS), Math.sin((k * Math.PI) / DIRECTIONS)];
    // What is wider than the narrowest so far need not be known any better.
    const narrowest = best ? best.left + best.right - 1e-6 : WIDEST;
    const left = free(footing, x, y, z, dx, dz, narrowest);
    if (left >= narrowest) continue;
    const rest = narrowest - left;
    const right = free(footing, x, y, z, -dx, -dz, rest);
    if (right < rest) best = { dx, dz, left, right };
  }
  if (!best) return null;
  const { dx, dz, left, right } = best;
  const width = left + right;
  const middle = { x: x + (dx * (left - right)) / 2, z: z + (dz * (left - right)) / 2, width };
  const across = (side: number) => {
    const [px, pz] = [middle.x - dz * side, middle.z + dx * side];
    return free(footing, px, y, pz, dx, dz) + free(footing, px, y, pz, -dx, -dz);
  };
  return across(ALONG) > OPENS * width && across(-ALONG) > OPENS * width ? middle : null;
}

/** Free way in a direction at the heights of a body, metres. @param far nobody asks for more */
function free(footing: Footing, x: number, y: number, z: number, dx: number, dz: number, far = WIDEST): number {
  const counts = (triangle: number) => footing.kindOf(triangle) !== SURFACE.door;
  return HEIGHTS.reduce(
    (least, height) => footing.solids.first([x, y + height, z], [dx, 0, dz], least, counts)?.distance ?? least,
    far,
  );
}

/** Square to the leg before, or straight on, where that is within reach. */
function squareTo(x: number, z: number, nodes: readonly PathNode[], reach: number): SnapPlace | null {
  const [before, last] = nodes.slice(-2);
  if (!before || !last) return null;
  const length = Math.hypot(last.x - before.x, last.z - before.z);
  const away = Math.hypot(x - last.x, z - last.z);
  if (length < 1e-6 || away < 2 * reach) return null;
  const [ux, uz] = [(last.x - before.x) / length, (last.z - before.z) / length];
  const along = (x - last.x) * ux + (z - last.z) * uz;
  const aside = (z - last.z) * ux - (x - last.x) * uz;
  if (Math.abs(aside) <= reach && along > 0)
    return { x: last.x + along * ux, z: last.z + along * uz, snap: { kind: 'straight' } };
  if (Math.abs(along) <= reach) return { x: last.x - aside * uz, z: last.z + aside * ux, snap: { kind: 'square' } };
  return null;
}

/** Things smaller or larger than this are nothing that one walks up to, metres. */
const THING: readonly [number, number] = [0.15, 6];
/** One is in line with a thing that is no farther away than this, metres; and stands on about the same floor. */
const NEAR_THING = 3;
const STOREY = 2.2;
const TO_MIDDLE = 0.2;

/** In line with the middle of the nearest thing, across or along. */
function inLineWith({ x, z, things = [], reach }: SnapAsk, floor: number): SnapPlace | null {
  let best: { place: SnapPlace; away: number } | null = null;
  const most = Math.min(reach, TO_MIDDLE);
  for (const { name, bounds } of things) {
    const { min, max } = bounds;
    const size = Math.max(max[0] - min[0], max[2] - min[2]);
    if (size < THING[0] || size > THING[1] || min[1] > floor + STOREY || max[1] < floor) continue;
    const [outX, outZ] = [Math.max(min[0] - x, 0, x - max[0]), Math.max(min[2] - z, 0, z - max[2])];
    const away = Math.hypot(outX, outZ);
    // Over it nobody stands.
    if (away === 0 || away > NEAR_THING || away >= (best?.away ?? Infinity)) continue;
    const [middleX, middleZ] = [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2];
    const snap = { kind: 'thing' as const, name };
    if (outX === 0 && Math.abs(x - middleX) <= most) best = { place: { x: middleX, z, snap }, away };
    else if (outZ === 0 && Math.abs(z - middleZ) <= most) best = { place: { x, z: middleZ, snap }, away };
  }
  return best?.place ?? null;
}

/** Usual distances from walls and things, metres (common practice, no source). */
const DISTANCES = [0.5, 0.75, 1, 1.5, 2];
/** There are many of them: a hand is drawn no farther than this, and to the distance of the node before than that, metres. */
const TO_DISTANCE = 0.08;
const TO_SAME = 0.15;

/** As far from what stands nearest as the last node is, else by a usual distance. */
function offWall({ x, z, nodes, footing, reach }: SnapAsk, floor: number): SnapPlace | null {
  const here = nearestBeside(x, floor, z, footing);
  if (!here || here.distance < 1e-6) return null;
  const last = nodes.at(-1);
  const before = last && nearestBeside(last.x, floor, last.z, footing);
  const drawn = (distance: number, most: number) => Math.abs(distance - here.distance) <= Math.min(reach, most);
  const wanted =
    before && drawn(before.distance, TO_SAME)
      ? before.distance
      : DISTANCES.find((distance) => drawn(distance, TO_DISTANCE));
  if (wanted === undefined) return null;
  const scale = wanted / here.distance;
  const place = { x: here.x + (x - here.x) * scale, z: here.z + (z - here.z) * scale };
  // Where something else is nearer then, it is no distance from this.
  const there = nearestBeside(place.x, floor, place.z, footing);
  if (!there || Math.abs(there.distance - wanted) > 1e-3) return null;
  return { ...place, snap: { kind: 'beside', distance: wanted } };
}

/** The nearest thing at the heights of a body, metres; null where nothing is near. Door leaves open, so they do not count. */
function nearestBeside(x: number, floor: number, z: number, footing: Footing) {
  let best: { x: number; z: number; distance: number } | null = null;
  const farthest = DISTANCES.at(-1)! + 1;
  footing.solids.beside(x, z, [floor + HEIGHTS[0]!, floor + HEIGHTS[1]!], farthest, (px, pz, distance, triangle) => {
    if (footing.kindOf(triangle) === SURFACE.door || distance >= (best?.distance ?? Infinity)) return;
    best = { x: px, z: pz, distance };
  });
  return best as { x: number; z: number; distance: number } | null;
}
