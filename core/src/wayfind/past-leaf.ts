import type { Vec3 } from '../document/index.ts';
import { TRIANGLE } from '../geometry/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';
import type { WayWalker } from './band.ts';
import { roomAbout } from './clearance.ts';

/** What of a door is nearer than this to where it was met is the same leaf, metres. */
const SAME_LEAF = 0.12;
/** Who goes past a leaf keeps so much more away than the shoulders need, metres. */
const PAST = 0.12;
/** A leaf is met at any height of a body, metres over the floor. */
const HEIGHTS = [0.3, 1.9] as const;

/**
 * Where one goes past a door leaf that stands open in the way: round its free end. Null where there is no room at either
 * end: the door is shut.
 * @param met where the way goes through the leaf, metres @param floor height there, metres
 */
export function pastLeaf(met: Vec3, floor: number, footing: Footing, walker: WayWalker): Vec3 | null {
  const { solids } = footing;
  const corners: [x: number, z: number][] = [];
  const heights = [floor + HEIGHTS[0], floor + HEIGHTS[1]] as const;
  solids.beside(met[0], met[2], heights, SAME_LEAF, (_x, _z, _distance, triangle) => {
    if (footing.kindOf(triangle) !== SURFACE.door) return;
    for (let o = triangle * TRIANGLE; o < (triangle + 1) * TRIANGLE; o += 3)
      corners.push([solids.triangles[o]!, solids.triangles[o + 2]!]);
  });
  let [a, b, length]: [[number, number], [number, number], number] = [[0, 0], [0, 0], 0];
  for (const one of corners)
    for (const other of corners) {
      const apart = Math.hypot(one[0] - other[0], one[1] - other[1]);
      if (apart > length) [a, b, length] = [one, other, apart];
    }
  if (length === 0) return null;
  const [ux, uz] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const off = walker.radius + PAST;
  const ends = [
    [b[0] + ux * off, b[1] + uz * off],
    [a[0] - ux * off, a[1] - uz * off],
  ].flatMap(([x, z]) => {
    const y = footing.surfaceNear(x!, z!, floor);
    if (y === null || Math.abs(y - floor) > walker.step) return [];
    const { free } = roomAbout(footing, x!, y, z!, { ...walker, leaves: true }, walker.radius);
    return free >= walker.radius ? [{ at: [x!, y, z!] as Vec3, away: Math.hypot(x! - met[0], z! - met[2]) }] : [];
  });
  return ends.sort((one, other) => one.away - other.away)[0]?.at ?? null;
}
