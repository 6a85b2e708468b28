import type { Vec3, Walker } from '../document/index.ts';
import type { Footing } from '../survey/index.ts';
import { roomAbout } from './clearance.ts';

/** Points of the band are about so far apart, metres. */
const SPACING = 0.15;
const ROUNDS = 60;
/** One round moves a point no further than this, metres. */
const LONGEST_STEP = 0.08;
/** Who has the choice keeps so much more away from things than the shoulders need, metres; and at least so much. */
const COMFORT = 0.25;
const AT_LEAST = 0.06;
/** A floor that is so much higher or lower is another one, metres. */
const SAME_FLOOR = 0.3;

/** Who a way is for. */
export interface WayWalker extends Pick<Walker, 'radius' | 'height' | 'step'> {
  eyeHeight: number;
  /** See {@link Body}. */
  leaves?: boolean;
}

/**
 * Draws a way of straight pieces taut like a band that keeps off from what stands beside it: corners become bends, and
 * where there is room the way goes through the middle of it (after Quinlan & Khatib 1993, "Elastic bands").
 * @param corners on the floor, metres; both ends stay
 */
export function drawBand(corners: readonly Vec3[], footing: Footing, walker: WayWalker): Vec3[] {
  const points = divide(corners, SPACING);
  const reach = walker.radius + COMFORT;
  const about = (p: Vec3) => roomAbout(footing, p[0], p[1], p[2], walker, reach);
  const rooms = points.map(about);
  for (let round = 0; round < ROUNDS; round += 1) {
    let moved = 0;
    // To and fro, so that neither end is favoured.
    for (let n = 1; n + 1 < points.length; n += 1) {
      const i = round % 2 === 0 ? n : points.length - 1 - n;
      const [p, a, b] = [points[i]!, points[i - 1]!, points[i + 1]!];
      const { away, free } = rooms[i]!;
      // Too near to something, one only goes away from it.
      const taut = free < walker.radius + AT_LEAST ? 0.02 : 0.5;
      const wish = [
        ((a[0] + b[0]) / 2 - p[0]) * taut + away[0] * 0.5,
        ((a[2] + b[2]) / 2 - p[2]) * taut + away[1] * 0.5,
      ] as const;
      const size = Math.hypot(...wish);
      if (size < 1e-3) continue;
      const scale = Math.min(1, LONGEST_STEP / size);
      const [x, z] = [p[0] + wish[0] * scale, p[2] + wish[1] * scale];
      const y = footing.surfaceNear(x, z, p[1]);
      if (y === null || Math.abs(y - p[1]) > SAME_FLOOR) continue;
      const next: Vec3 = [x, y, z];
      const room = about(next);
      // Nobody is drawn nearer to a thing than the shoulders need, unless it was so before.
      if (room.free < Math.min(walker.radius + AT_LEAST, free) - 1e-6) continue;
      if (footing.headroom(x, z, y) < walker.height && footing.headroom(p[0], p[2], p[1]) >= walker.height) continue;
      points[i] = next;
      rooms[i] = room;
      moved = Math.max(moved, size * scale);
    }
    if (moved < 0.004) break;
  }
  return points;
}

/** A place to stand near another one, with room for the shoulders where there is any within some steps. */
export function settle(place: Vec3, footing: Footing, walker: WayWalker): Vec3 {
  let at = place;
  for (let step = 0; step < SETTLING; step += 1) {
    const { free, away } = roomAbout(footing, at[0], at[1], at[2], walker, walker.radius + COMFORT);
    const size = Math.hypot(...away);
    if (free >= walker.radius + AT_LEAST || size < 1e-3) break;
    const scale = LONGEST_STEP / size;
    const [x, z] = [at[0] + away[0] * scale, at[2] + away[1] * scale];
    const y = footing.surfaceNear(x, z, at[1]);
    if (y === null || Math.abs(y - at[1]) > SAME_FLOOR || footing.headroom(x, z, y) < walker.height) break;
    at = [x, y, z];
  }
  return at;
}
const SETTLING = 12;

/** The same line with points at most so far apart in plan, metres. */
export function divide(corners: readonly Vec3[], spacing: number): Vec3[] {
  const out: Vec3[] = [[...corners[0]!]];
  for (let i = 1; i < corners.length; i += 1) {
    const [a, b] = [corners[i - 1]!, corners[i]!];
    const pieces = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[2] - a[2]) / spacing));
    for (let k = 1; k <= pieces; k += 1)
      out.push([0, 1, 2].map((axis) => a[axis]! + ((b[axis]! - a[axis]!) * k) / pieces) as Vec3);
  }
  return out;
}
