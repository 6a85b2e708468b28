import type { Pose, Vec3 } from '@eskovan/core/document';
import { orientationOf } from '@eskovan/core/geometry';

/** Metres. */
export type Point = readonly [number, number, number];

/** A pose at one place that looks at another, and how far it looks up, radians. */
export function poseAt(from: Point, to: Point): Pose & { tilt: number } {
  const [dx, dy, dz] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const tilt = Math.atan2(dy, Math.hypot(dx, dz));
  return {
    position: [...from] as Vec3,
    orientation: orientationOf({ pan: Math.atan2(-dx, -dz), tilt, roll: 0 }),
    tilt,
  };
}
