import type { Quaternion, Vec3 } from '../document/index.ts';
import { cross } from './vectors.ts';

export interface Angles {
  /** Turn about the vertical, radians; 0 looks along −Z (plan north), positive turns left (towards −X). */
  pan: number;
  /** Up (positive) or down, radians. */
  tilt: number;
  /** Lean to the left (positive), radians. */
  roll: number;
}

/** Orientation of a camera panned, then tilted, then rolled (Y–X–Z, each about the turned axes). */
export function orientationOf({ pan, tilt, roll }: Angles): Quaternion {
  const cy = Math.cos(pan / 2);
  const sy = Math.sin(pan / 2);
  const cx = Math.cos(tilt / 2);
  const sx = Math.sin(tilt / 2);
  const cz = Math.cos(roll / 2);
  const sz = Math.sin(roll / 2);
  return [
    cy * sx * cz + sy * cx * sz,
    sy * cx * cz - cy * sx * sz,
    cy * cx * sz - sy * sx * cz,
    cy * cx * cz + sy * sx * sz,
  ];
}

/** Writes the orientation of a camera that is panned, tilted and rolled, without allocating; see {@link orientationOf}. */
export function writeOrientation(pan: number, tilt: number, roll: number, out: Float64Array, offset: number): void {
  const [cy, sy, cx, sx] = [Math.cos(pan / 2), Math.sin(pan / 2), Math.cos(tilt / 2), Math.sin(tilt / 2)];
  const [cz, sz] = roll === 0 ? [1, 0] : [Math.cos(roll / 2), Math.sin(roll / 2)];
  out[offset] = cy * sx * cz + sy * cx * sz;
  out[offset + 1] = sy * cx * cz - cy * sx * sz;
  out[offset + 2] = cy * cx * sz - sy * sx * cz;
  out[offset + 3] = cy * cx * cz + sy * sx * sz;
}

/** Straight up or down for all purposes: the sine of the tilt is so near to 1 that pan and roll are one turn. */
const PLUMB = 1 - 1e-12;

/**
 * The angles of an orientation; the inverse of {@link orientationOf} for tilts inside ±90°. Straight up or down, where
 * pan and roll are the same turn, all of it is pan.
 */
export function anglesOf([x, y, z, w]: Quaternion): Angles {
  const sinTilt = Math.max(-1, Math.min(1, 2 * (w * x - y * z)));
  if (Math.abs(sinTilt) > PLUMB)
    return { pan: Math.atan2(2 * (w * y - x * z), 1 - 2 * (y * y + z * z)), tilt: Math.asin(sinTilt), roll: 0 };
  return {
    pan: Math.atan2(2 * (x * z + w * y), 1 - 2 * (x * x + y * y)),
    tilt: Math.asin(sinTilt),
    roll: Math.atan2(2 * (x * y + w * z), 1 - 2 * (x * x + z * z)),
  };
}

/** Where a camera of this orientation looks, unit vector. */
export function forwardOf([x, y, z, w]: Quaternion): [number, number, number] {
  return [-2 * (x * z + w * y), -2 * (y * z - w * x), -(1 - 2 * (x * x + y * y))];
}

/** Shortest way between two orientations (Shoemake 1985), part 0…1. */
export function slerp(a: Quaternion, b: Quaternion, part: number): Quaternion {
  let dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3];
  const sign = dot < 0 ? -1 : 1;
  dot *= sign;
  const angle = Math.acos(Math.min(1, dot));
  const sine = Math.sin(angle);
  const wa = sine < 1e-6 ? 1 - part : Math.sin((1 - part) * angle) / sine;
  const wb = sign * (sine < 1e-6 ? part : Math.sin(part * angle) / sine);
  const q = [a[0] * wa + b[0] * wb, a[1] * wa + b[1] * wb, a[2] * wa + b[2] * wb, a[3] * wa + b[3] * wb] as const;
  const length = Math.hypot(...q);
  return [q[0] / length, q[1] / length, q[2] / length, q[3] / length];
}

/**
 * Orientation of a camera that looks along a direction with another upward. Neither needs unit length; where they are
 * parallel, the bearing is that of a camera tilted up or down from −Z. Source: Shepperd 1978, the branch with the largest
 * denominator.
 */
export function orientationFromAxes(ahead: Readonly<Vec3>, up: Readonly<Vec3>): Quaternion {
  const back = unit([-ahead[0], -ahead[1], -ahead[2]]);
  const level = cross(up, back);
  const right = unit(
    Math.hypot(...level) > PARALLEL * Math.hypot(...up)
      ? level
      : [1 - back[0] ** 2, -back[0] * back[1], -back[0] * back[2]],
  );
  const [[rx, ry, rz], [ux, uy, uz], [bx, by, bz]] = [right, cross(back, right), back];
  const candidates: Quaternion[] = [
    [uz - by, bx - rz, ry - ux, 1 + rx + uy + bz],
    [1 + rx - uy - bz, ry + ux, rz + bx, uz - by],
    [ry + ux, 1 - rx + uy - bz, uz + by, bx - rz],
    [rz + bx, uz + by, 1 - rx - uy + bz, ry - ux],
  ];
  const length = (q: Quaternion) => Math.hypot(...q);
  const best = candidates.reduce((one, other) => (length(other) > length(one) ? other : one));
  const size = length(best);
  return [best[0] / size, best[1] / size, best[2] / size, best[3] / size];
}
/** Sine of the angle between directions that are parallel for all purposes. */
const PARALLEL = 1e-6;

const unit = ([x, y, z]: Vec3): Vec3 => {
  const length = Math.hypot(x, y, z);
  return [x / length, y / length, z / length];
};
