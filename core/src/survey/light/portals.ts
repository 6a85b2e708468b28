import { dot, type TriangleSoup } from '../../geometry/index.ts';
import { hemisphere, onSquare, setFrame } from './hemisphere.ts';
import { holesIn, type Hole } from './plane-holes.ts';
import type { RayTree } from './ray-tree.ts';

/**
 * A place in a wall or a roof through which a room sees what is outside: a rectangle that holds an opening. What comes
 * through it is looked for on it, instead of by rays everywhere, of which hardly any finds a small window.
 */
export interface Portal extends Hole {
  /** Unit normal, into the room. */
  normal: [number, number, number];
}

/** Smaller openings let no light in that anybody would see; larger ones are found by rays everywhere. Square metres. */
const LEAST_AREA = 0.04;
const MOST_AREA = 16;
/** More openings than this are not asked one by one: the larger ones are. */
const MOST_PORTALS = 160;
/** Planes of a wall, its frames and its other side lie nearer to each other than this, metres: they have one opening. */
const ONE_WALL = 0.9;
/** Another plane of the wall has the same opening where it is at least so large as that, as a part. */
const SAME_SIZE = 0.6;
/** Rays from each side of an opening that tell what is seen from it. */
const PROBES = 48;
/** Inside, less than this part of the rays meets nothing; through the opening, at least that part. */
const INSIDE = 0.3;
const THROUGH = 0.06;
/** From how far inside one looks out to tell whether an opening is shut, metres. */
const STEP_BACK = 0.5;

/** The openings of a site by which its rooms are lit. @param soup triangles that stop light, metres @param tree of the same */
export function findPortals(soup: TriangleSoup, tree: RayTree): Portal[] {
  const candidates = holesIn(soup)
    .filter(({ area }) => area >= LEAST_AREA && area <= MOST_AREA)
    .sort((one, two) => two.area - one.area);
  const found: Portal[] = [];
  for (const hole of candidates) {
    const same = found.findIndex((portal) => isOneOpening(portal, hole));
    if (same < 0 && found.length === MOST_PORTALS) continue;
    // Of the planes of one wall the innermost: sills and reveals that the sun shines on are seen through it, too.
    if (same >= 0 && !(hole.area > SAME_SIZE * found[same]!.area && ahead(found[same]!, hole.centre) > 0.01)) continue;
    const portal = facingIn(hole, tree);
    if (portal && same < 0) found.push(portal);
    else if (portal && dot(portal.normal, found[same]!.normal) > 0) found[same] = portal;
  }
  return found;
}

/** Are two openings of parallel planes one and the same, through a wall? */
function isOneOpening(portal: Portal, { centre, normal }: Hole): boolean {
  if (Math.abs(dot(portal.normal, normal)) < 0.95 || Math.abs(ahead(portal, centre)) > ONE_WALL) return false;
  const from = centre.map((value, k) => value - portal.centre[k]!);
  return [portal.u, portal.v].every((side) => Math.abs(dot(from, side)) <= dot(side, side));
}

/** How far a place lies inward of an opening, metres. */
const ahead = ({ centre, normal }: Portal, place: readonly number[]): number =>
  dot(normal, place) - dot(normal, centre);

/** The opening with its normal into the room; null where no room is lit by it. */
function facingIn({ centre, u, v, normal, area }: Hole, tree: RayTree): Portal | null {
  const outward = (side: number) => normal.map((value) => side * value) as [number, number, number];
  const portal = (side: number): Portal => ({ centre, u, v, normal: outward(side), area });
  const [one, two] = [seenFrom(portal(1), tree, 0), seenFrom(portal(-1), tree, 0)];
  const inward = one < two ? portal(1) : portal(-1);
  if (Math.min(one, two) > INSIDE) return null;
  const out = { ...inward, normal: inward.normal.map((value) => -value) as Portal['normal'] };
  return seenFrom(out, tree, STEP_BACK) < THROUGH ? null : inward;
}

const frame = new Float64Array(6);
const probes = hemisphere(PROBES);

/**
 * Which part of the rays from an opening, to the side of its normal, meets nothing.
 * @param back they set out from so far behind it, still through it, metres
 */
function seenFrom({ centre, u, v, normal: [nx, ny, nz] }: Portal, tree: RayTree, back: number): number {
  setFrame(frame, nx, ny, nz);
  let seen = 0;
  for (let i = 0; i < PROBES; i += 1) {
    const [a, b, c] = [probes[3 * i]!, probes[3 * i + 1]!, probes[3 * i + 2]!];
    const dx = a * frame[0]! + b * nx + c * frame[3]!;
    const dy = a * frame[1]! + b * ny + c * frame[4]!;
    const dz = a * frame[2]! + b * nz + c * frame[5]!;
    // Each from another place of it.
    const [s, t] = onSquare(i, 0.9);
    const step = back / Math.max(0.2, b);
    const at = (k: number, d: number) => centre[k]! + s * u[k]! + t * v[k]! - step * d;
    if (!tree.hits(at(0, dx), at(1, dy), at(2, dz), dx, dy, dz, Infinity)) seen += 1;
  }
  return seen / PROBES;
}
