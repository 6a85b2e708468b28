import { Matrix4, Vector3 } from 'three';
import type { Vec3 } from '../document/index.ts';
import type { ScenePart } from '../format/index.ts';
import { pickNearest } from '../geometry/index.ts';
import type { SiteMotion } from './site-motion.ts';

/** Where a ray meets a site. */
export interface SiteHit {
  /** Where that is now, metres. */
  point: Vec3;
  /** Where that point of the part is while nothing moves it. */
  rest: Vec3;
  part: ScenePart;
}

/** Is anything of a part at a place of its texture, or was it cut out there? */
export type IsThere = (part: ScenePart, s: number, t: number) => boolean;

/**
 * The nearest surface that a ray meets while things move.
 * @param direction unit vector
 * @param time seconds into the move
 */
export function pickSite(
  parts: readonly ScenePart[],
  motion: SiteMotion,
  origin: Vec3,
  direction: Vec3,
  time: number,
  isThere: IsThere = () => true,
): SiteHit | null {
  const places = motion.places();
  motion.place(time, places);
  const bodies = new Map<number, ScenePart[]>();
  for (const part of parts) {
    const group = motion.groupOf(part);
    const body = bodies.get(group);
    if (body) body.push(part);
    else bodies.set(group, [part]);
  }
  const from = new Vector3(...origin);
  const way = new Vector3(...direction);
  let nearest: SiteHit | null = null;
  let distance = Infinity;
  for (const [group, body] of bodies) {
    const place = group < 0 ? STILL : places[group]!;
    // What is not there is not met.
    if (place.determinant() === 0) continue;
    // The ray is taken back to where the body rests, instead of the body to the ray.
    const back = place.clone().invert();
    const hit = pickNearest(
      body,
      from.clone().applyMatrix4(back).toArray(),
      way.clone().transformDirection(back).toArray(),
      (at, k, u, v) => {
        const { uvs, indices } = body[at]!;
        if (!uvs) return true;
        const on = (axis: number) =>
          uvs[2 * indices[k]! + axis]! * (1 - u - v) +
          uvs[2 * indices[k + 1]! + axis]! * u +
          uvs[2 * indices[k + 2]! + axis]! * v;
        return isThere(body[at]!, on(0), on(1));
      },
    );
    if (!hit) continue;
    const point = new Vector3(...hit.point).applyMatrix4(place);
    const away = point.distanceTo(from);
    if (away >= distance) continue;
    distance = away;
    nearest = { point: point.toArray(), rest: hit.point, part: body[hit.part]! };
  }
  return nearest;
}

const STILL = new Matrix4();
