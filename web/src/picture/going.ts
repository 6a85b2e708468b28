import type { Pose } from '@eskovan/core/document';
import { slide, type Ground } from './eye.ts';
import type { Hands } from './hands.ts';

/** Paces of who walks by keys or a device, m/s. */
const WALK = 1.5;
const RUN = 4;
/** In a second one goes past so much of a product. */
const PAST = 0.5;
/** A turn of the wheel by so many pixels leads nearly all the way to what is under the pointer. */
const WHEEL = 0.001;
/** What is under the pointer, while nobody knows, metres; and nearer than this nothing is taken to be. */
const [PRESUMED, NEAREST] = [4, 1];
/** The same of a product, as parts of its size. */
const [PRESUMED_PART, NEAREST_PART] = [1, 0.15];

/** Where the eye is after a while: on foot at a walk, high over something faster, round a product as large as that is. */
export function gone(
  { ground, eyeHeight, tempo = 1 }: Pick<Hands, 'ground' | 'eyeHeight' | 'tempo'>,
  pose: Pose,
  [forward, right]: readonly [number, number],
  seconds: number,
  fast = false,
): Pose {
  if (forward === 0 && right === 0) return pose;
  const part = (fast ? RUN : WALK) / WALK;
  if (ground?.isProduct) {
    const way = PAST * ground.size * part * seconds * tempo;
    return slide(pose, forward * way, right * way, 0);
  }
  const high = ground ? Math.max(1, ground.heightUnder(pose) / eyeHeight) : 1;
  const way = WALK * high * part * seconds * tempo;
  return ground ? ground.walk(pose, forward * way, right * way, eyeHeight) : slide(pose, forward * way, right * way, 0);
}

/** How far away something is taken to be that nobody has found out about. */
export const presumed = (ground: Ground | null): number => (ground?.isProduct ? PRESUMED_PART * ground.size : PRESUMED);

/**
 * How far a wheel leads along a ray, metres.
 * @param left how far it is to what is under the pointer: one comes nearer and nearer, and in the end through it
 */
export function wheelWay(pixels: number, left: number, ground: Ground | null): number {
  const nearest = ground?.isProduct ? NEAREST_PART * ground.size : NEAREST;
  return -pixels * WHEEL * Math.max(nearest, left);
}
