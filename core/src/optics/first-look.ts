import { DEFAULT_LENS, type Bounds, type Lens, type Pose, type Vec3 } from '../document/index.ts';
import { forwardOf, orientationOf } from '../geometry/index.ts';
import { viewAngles } from './view-angle.ts';

/** A first look comes from the south-west, this far above the horizon, radians. */
const FROM = { pan: -0.64, tilt: 0.42 } as const;
/** Part of the frame that what is framed fills. */
const FILL = 0.86;

/**
 * A first look at something nobody has looked at yet: the whole of it, from the south-west and above, whatever its shape
 * and size.
 * @param bounds what is to be seen, metres
 * @param aspect width over height of the picture
 */
export function firstLook({ min, max }: Bounds, lens: Lens = DEFAULT_LENS, aspect = 1.5): Pose {
  const { horizontal, vertical } = viewAngles(lens, aspect);
  const [right, up] = [Math.tan(horizontal / 2) * FILL, Math.tan(vertical / 2) * FILL];
  const centre = [0, 1, 2].map((k) => (min[k]! + max[k]!) / 2) as Vec3;
  const orientation = orientationOf({ pan: FROM.pan, tilt: -FROM.tilt, roll: 0 });
  const forward = forwardOf(orientation);
  const [rx, rz] = [Math.cos(FROM.pan), -Math.sin(FROM.pan)];
  const [ux, uy, uz] = [-rz * forward[1], rz * forward[0] - rx * forward[2], rx * forward[1]];
  // The nearest place from which every corner lies within the frame.
  let distance = 0;
  for (let corner = 0; corner < 8; corner += 1) {
    const [x, y, z] = [0, 1, 2].map((k) => (corner & (1 << k) ? max : min)[k]! - centre[k]!) as Vec3;
    const depth = x * forward[0] + y * forward[1] + z * forward[2];
    const across = Math.abs(x * rx + z * rz) / right;
    const high = Math.abs(x * ux + y * uy + z * uz) / up;
    distance = Math.max(distance, across - depth, high - depth);
  }
  return {
    position: centre.map((value, k) => value - forward[k]! * distance) as Vec3,
    orientation,
  };
}

/** How near things may come to an eye that is inside a scene, metres. */
const NEAREST = 0.08;
/** A small thing is looked at from nearer: this part of its size. */
const NEAREST_PART = 0.004;

/**
 * Distances between which everything of a scene lies as seen from a place, metres: as tight as it goes, so that what is
 * drawn into a depth buffer neither flickers nor is cut off, for a ring as for a landscape.
 */
export function depthRange([x, y, z]: Vec3, { min, max }: Bounds): { near: number; far: number } {
  const size = Math.hypot(...([0, 1, 2] as const).map((k) => max[k] - min[k]));
  const outside = Math.hypot(...[x, y, z].map((value, k) => Math.max(min[k]! - value, 0, value - max[k]!)));
  const farthest = Math.hypot(
    ...[x, y, z].map((value, k) => Math.max(Math.abs(value - min[k]!), Math.abs(value - max[k]!))),
  );
  const near = Math.max(Math.min(NEAREST, NEAREST_PART * size), 0.5 * outside);
  return { near: Math.max(near, 1e-5), far: Math.max(1.05 * farthest, 2 * near) };
}
