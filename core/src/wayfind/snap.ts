import type { PathNode } from '../document/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';

/** What a hand that draws a path was drawn to. */
export type Snap =
  /** The middle between what stands to both sides, so wide apart, metres. */
  | { kind: 'passage'; width: number }
  /** An earlier node, by its place in the path. */
  | { kind: 'node'; index: number }
  /** Square to the last leg, or straight on. */
  | { kind: 'square' }
  | { kind: 'straight' };

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
}

/** Where a hand that draws a path is drawn to: an earlier node, the middle of a door or a passage, a square leg. */
export function snapPlace({ x, z, nodes, footing, floor, reach }: SnapAsk): SnapPlace {
  const node = nearestNode(x, z, nodes, reach);
  if (node) return node;
  const passage = floor === null ? null : passageAt(footing, x, floor, z);
  if (passage && Math.hypot(passage.x - x, passage.z - z) <= reach)
    return { x: passage.x, z: passage.z, snap: { kind: 'passage', width: passage.width } };
  return squareTo(x, z, nodes, reach) ?? { x, z, snap: null };
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
