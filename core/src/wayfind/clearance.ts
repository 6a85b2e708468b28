import { KNEE } from '../move/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';

/** What is near is told apart by so many directions. */
const DIRECTIONS = 8;

/** How much room there is about a place, and which way there is more. */
export interface RoomAbout {
  /** To the nearest thing between knee and head, metres; `reach` where nothing is nearer. */
  free: number;
  /** Away from what is near: the nearer, the stronger; no longer than the room that is missing. Metres. */
  away: [x: number, z: number];
}

/** Who needs the room: what is lower than the knee is stepped over or beside. */
export interface Body {
  eyeHeight: number;
  /** metres */
  height: number;
  /** Are door leaves in the way where they stand? Else they open. */
  leaves?: boolean;
  /** Has what rests at a place, in plan, gone by then? */
  gone?: (x: number, z: number) => boolean;
}

/**
 * @param y of the floor, metres
 * @param reach what is farther away does not count, metres
 */
export function roomAbout(footing: Footing, x: number, y: number, z: number, body: Body, reach: number): RoomAbout {
  const near = new Float64Array(DIRECTIONS).fill(reach);
  const ways = new Float64Array(2 * DIRECTIONS);
  const heights = [y + KNEE * body.eyeHeight, y + body.height] as const;
  footing.solids.beside(x, z, heights, reach, (px, pz, distance, triangle) => {
    if (!body.leaves && footing.kindOf(triangle) === SURFACE.door) return;
    const [dx, dz] = [px - x, pz - z];
    const k = Math.floor(((Math.atan2(dz, dx) + Math.PI) / (2 * Math.PI)) * DIRECTIONS) % DIRECTIONS;
    if (distance >= near[k]! || body.gone?.(px, pz)) return;
    near[k] = distance;
    // Under a table one gets out by its nearest edge.
    const size = (distance === 0 ? -1 : 1) * (Math.hypot(dx, dz) || 1);
    ways[2 * k] = dx / size;
    ways[2 * k + 1] = dz / size;
  });
  let [ax, az, free] = [0, 0, reach];
  for (let k = 0; k < DIRECTIONS; k += 1) {
    const missing = reach - near[k]!;
    free = Math.min(free, near[k]!);
    ax -= ways[2 * k]! * missing;
    az -= ways[2 * k + 1]! * missing;
  }
  const size = Math.hypot(ax, az);
  const scale = size > 0 ? Math.min(reach - free, size) / size : 0;
  return { free, away: [ax * scale, az * scale] };
}
