import { DEFAULT_LENS, type Bounds, type Lens, type Pose, type Vec3 } from '../document/index.ts';
import { forwardOf, orientationOf } from '../geometry/index.ts';
import { viewAngles } from '../optics/index.ts';

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
export function firstLook({ min, max }: Bounds, aspect: number, lens: Lens = DEFAULT_LENS): Pose {
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
