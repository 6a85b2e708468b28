import type { Bounds, Gaze, GazeAtObject, Vec3, Walk } from '../document/index.ts';
import { middle, nearestTurn } from '../geometry/index.ts';
import type { GazeTables } from './tables.ts';

/** A part of the site, as far as finding it again needs. */
export interface NamedPart {
  model: string;
  name: string;
  bounds: Bounds;
  /** What of it sticks out farthest, three numbers a corner, metres; absent where that is its box. */
  outline?: ArrayLike<number>;
}

/** Where the target of a gaze is now; null where the site has no such part any more. */
export function findTarget(gaze: GazeAtObject, parts: readonly NamedPart[]): Vec3 | null {
  const part = parts.find(({ model, name }) => model === gaze.model && name === gaze.name);
  if (!part) return null;
  const now = middle(part.bounds);
  return gaze.point.map((value, k) => value + now[k]! - gaze.centre[k]!) as Vec3;
}

/** A move that looks where its objects are now; where one is gone, the eye goes on looking where it was. */
export function aimMove<M extends Looking>(move: M, parts: readonly NamedPart[]): M {
  const gaze = aimed(move.gaze, parts);
  const spans = move.gazeSpans?.map((span) => {
    const now = aimed(span.gaze, parts);
    return now === span.gaze ? span : { ...span, gaze: now };
  });
  const same = gaze === move.gaze && (spans ?? []).every((span, i) => span === move.gazeSpans![i]);
  return same ? move : { ...move, gaze, ...(spans && { gazeSpans: spans }) };
}
type Looking = Pick<Walk, 'gaze' | 'gazeSpans'>;

function aimed(gaze: Gaze, parts: readonly NamedPart[]): Gaze {
  const point = gaze.kind === 'object' ? findTarget(gaze, parts) : null;
  return gaze.kind === 'object' && point ? { ...gaze, point, centre: shift(gaze, point) } : gaze;
}

/** The middle that belongs to a moved point. */
const shift = ({ point, centre }: GazeAtObject, now: Vec3): Vec3 =>
  centre.map((value, k) => value + now[k]! - point[k]!) as Vec3;

/**
 * Looks from every eye point at one point, or from each at a point of its own.
 * @param eye [x, y, z] at the stations
 * @param target [x, y, z], or as many of these as there are eye points
 */
export function gazeAt(eye: Float64Array, target: Vec3 | Float64Array): GazeTables {
  const count = eye.length / 3;
  const pan = new Float64Array(count);
  const tilt = new Float64Array(count);
  for (let i = 0; i < count; i += 1) {
    const at = target.length === 3 ? 0 : 3 * i;
    const dx = target[at]! - eye[3 * i]!;
    const dy = target[at + 1]! - eye[3 * i + 1]!;
    const dz = target[at + 2]! - eye[3 * i + 2]!;
    const flat = Math.hypot(dx, dz);
    const before = i > 0 ? pan[i - 1]! : 0;
    // Straight above or below there is no pan: keep the one that led there.
    pan[i] = flat < 1e-6 && i > 0 ? before : nearestTurn(Math.atan2(-dx, -dz), before);
    tilt[i] = Math.atan2(dy, flat);
  }
  return { pan, tilt };
}
