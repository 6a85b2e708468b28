import { Vector3 } from 'three';
import type { GazeAtObject, Vec3 } from '../document/index.ts';
import { findTarget, type NamedPart } from '../gaze/index.ts';
import type { MovablePart, SiteMotion } from './site-motion.ts';

/**
 * Where the target of a gaze is as time goes on; null where it stands still or is not there.
 * @param parts of the site, at rest
 */
export function followTarget(
  gaze: GazeAtObject,
  parts: readonly (NamedPart & MovablePart)[],
  motion: SiteMotion,
): ((time: number) => Vec3) | null {
  const part = parts.find(({ model, name }) => model === gaze.model && name === gaze.name);
  const group = part ? motion.groupOf(part) : -1;
  const rest = findTarget(gaze, parts);
  if (group < 0 || !rest) return null;
  const places = motion.places();
  const point = new Vector3();
  return (time) => {
    motion.place(time, places);
    return point.fromArray(rest).applyMatrix4(places[group]!).toArray();
  };
}
