import { MOST_SHIFT, type Lens, type StillCamera } from '../document/index.ts';
import { anglesOf, orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';

/** Length of the upright line that is looked at, metres at a metre's distance. */
const SHORT = 1e-4;

/**
 * The camera made level and its lens shifted so far that the middle of the picture shows what it did: verticals are
 * upright in it. shift = f · tan(elevation of the picture's middle). Source: the view camera's rising front, any handbook
 * of architectural photography.
 * @returns null where the lens would have to be shifted more than it can be: looking up or down too steeply
 */
export function straightened({ pose, lens }: StillCamera): StillCamera | null {
  const middle = new Projection(throughLens(lens), 1, pose.position, pose.orientation).ray(0, 0).direction;
  const { pan } = anglesOf(pose.orientation);
  const ahead = -middle[0] * Math.sin(pan) - middle[2] * Math.cos(pan);
  const aside = middle[0] * Math.cos(pan) - middle[2] * Math.sin(pan);
  if (ahead <= 0) return null;
  const { focalLengthMm, sensor } = lens;
  const shift: Lens['shift'] = [
    ((aside / ahead) * focalLengthMm) / sensor.widthMm,
    ((middle[1] / ahead) * focalLengthMm) / sensor.heightMm,
  ];
  if (shift.some((part) => Math.abs(part) > MOST_SHIFT)) return null;
  return {
    pose: { position: pose.position, orientation: orientationOf({ pan, tilt: 0, roll: 0 }) },
    lens: { ...lens, shift },
  };
}

/**
 * How much verticals at the left and right edge of a picture lean towards each other, radians: positive where they meet
 * above, negative where they meet below.
 * @param aspect width over height of the picture
 */
export function convergence(projection: Projection, aspect: number): number {
  const lean = (x: number) => {
    const { from, direction } = projection.ray(x, 0);
    const foot = projection.project([from[0] + direction[0], from[1] + direction[1], from[2] + direction[2]]);
    const head = projection.project([from[0] + direction[0], from[1] + direction[1] + SHORT, from[2] + direction[2]]);
    return Math.atan2((head.x - foot.x) * aspect, head.y - foot.y);
  };
  return lean(-1) - lean(1);
}

/**
 * How much longer than wide a small ball looks where a picture stretches it most, in the middle of an edge: 0 is round.
 * A central projection makes it 1 / cos θ times as long as wide at θ off the axis (any handbook of perspective).
 */
export function edgeStretch({ window, view }: Projection): number {
  if (view.kind === 'parallel') return 0;
  const farthest = Math.max(-window.left, window.right, -window.bottom, window.top);
  return Math.hypot(1, farthest) - 1;
}

/** How far off the axis a ball is drawn out so much, in focal lengths: the inverse of {@link edgeStretch}. */
export const reachOf = (stretch: number): number => Math.sqrt((1 + stretch) ** 2 - 1);
