import { Matrix4, Vector3 } from 'three';
import type { Vec3 } from '../document/index.ts';
import { distanceToPlanBox } from '../geometry/index.ts';
import { planBoxOfPart, type MovablePart, type SiteMotion } from './site-motion.ts';

/**
 * Has what rests at a place moved away from there?
 * @param point where something of the site at rest was met, metres
 * @param time into the move, seconds
 * @param reach what has come no farther away than this, in plan, is still there, metres
 */
export type Gone = (point: Vec3, time: number, reach: number) => boolean;

/** Nothing moves. */
export const STAYS: Gone = () => false;

/** What is met may lie a little beside what it belongs to, metres. */
const AT = 0.03;
/** What is there by less than this is not there: it fades, or has shrunk to nothing. */
const PRESENT = 0.5;

/**
 * Tells where doors have opened, and what else has gone, by the boxes of what moves.
 * @param parts of the site, at rest
 */
export function goneFrom(parts: readonly MovablePart[], motion: SiteMotion | null): Gone {
  const movers = parts.flatMap((part) => {
    const group = motion ? motion.groupOf(part) : -1;
    return group < 0 ? [] : [{ group, box: planBoxOfPart(part) }];
  });
  if (!motion || movers.length === 0) return STAYS;
  const places = motion.places();
  const inverse = new Matrix4();
  const there = new Vector3();
  return (point, time, reach) => {
    const met = movers.filter(({ box }) => distanceToPlanBox(box, point) <= AT);
    if (met.length === 0) return false;
    motion.place(time, places);
    const presences = motion.presences(time);
    return met.every(({ group, box }) => {
      const place = places[group]!;
      if ((presences?.[group] ?? 1) < PRESENT || Math.abs(place.determinant()) < 1e-9) return true;
      there.set(...point).applyMatrix4(inverse.copy(place).invert());
      return distanceToPlanBox(box, there.toArray()) > reach;
    });
  };
}
