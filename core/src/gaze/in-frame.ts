import type { Vec3 } from '../document/index.ts';

/** Turning faster than this across the frame, something has half of its lead room, radians a second. */
const HALF_LEAD = 0.05;

/**
 * Pan and tilt of a level camera that sees a direction at a place of its frame.
 * @param direction from the eye, of any length
 * @param right tangent of the angle to the right of the axis at which it is to be seen
 * @param up tangent of the angle above it
 */
export function aimInFrame([dx, dy, dz]: Readonly<Vec3>, right: number, up: number): { pan: number; tilt: number } {
  const length = Math.hypot(dx, dy, dz);
  if (length === 0) return { pan: 0, tilt: 0 };
  // The ray of that place, tilted, is as high as the direction: up·cos t + sin t = its height.
  const height = (dy / length) * Math.hypot(right, up, 1);
  const reach = Math.hypot(1, up);
  const tilt = Math.asin(Math.min(1, Math.max(-1, height / reach))) - Math.atan2(up, 1);
  const ahead = Math.cos(tilt) - up * Math.sin(tilt);
  return { pan: Math.atan2(-dx, -dz) + Math.atan2(right, ahead), tilt };
}

/** Where what moves across a frame is held, so that there is room before it: right of the middle where it goes left. */
export const leadOf = (lead: number, turning: number): number => (lead * turning) / Math.hypot(turning, HALF_LEAD);
