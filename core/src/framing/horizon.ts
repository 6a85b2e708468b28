import { MOST_SHIFT, type Bounds, type StillCamera } from '../document/index.ts';
import { anglesOf, cornersOf, orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';

/** A camera that tilts by less is level, radians: what holds its verticals upright is its lens. */
const LEVEL = 1e-4;
/** As far up or down as a camera is tilted, radians. */
const MOST_TILT = 1.5;
/** Halvings of what is looked through: to the last digit that counts. */
const ROUNDS = 50;

/**
 * How high the horizon lies in the middle column of a picture, a part of its height from its lower edge; outside 0…1 it is
 * not in the picture. Null where there is none: parallel rays, or straight up and down.
 */
export function horizonOf(projection: Projection): number | null {
  if (projection.view.kind === 'parallel') return null;
  const { left, right, bottom, top } = projection.window;
  // A ray is level where what is up in the scene is square to it.
  const [across, up, ahead] = projection.alongAxes([0, 1, 0]);
  if (Math.abs(up) < 1e-6) return null;
  const y = -(ahead + (across * (left + right)) / 2) / up;
  return (y - bottom) / (top - bottom);
}

/**
 * The free part of a picture over a thing, of its height: negative where the thing is cut. Null where it is not all before
 * the eye.
 * @param bounds of the thing, metres
 */
export function headroomOf(projection: Projection, bounds: Bounds): number | null {
  const corners = cornersOf(bounds).map((corner) => projection.project(corner));
  if (corners.some(({ depth }) => depth <= 0)) return null;
  return (1 - Math.max(...corners.map(({ y }) => y))) / 2;
}

/**
 * The camera with its horizon at a part of the height: tilted, or, where it is level with a shifted lens, shifted, so that
 * verticals stay upright.
 * @param aspect width over height of the picture
 * @returns null where the lens cannot be shifted so far, or there is no horizon
 */
export const withHorizon = (camera: StillCamera, aspect: number, part: number): StillCamera | null =>
  raised(camera, aspect, part, horizonOf);

/**
 * The camera with so much room over a thing, a part of the height; see {@link withHorizon}.
 * @param bounds of the thing, metres
 */
export const withHeadroom = (camera: StillCamera, aspect: number, part: number, bounds: Bounds): StillCamera | null =>
  raised(camera, aspect, part, (projection) => headroomOf(projection, bounds));

/** @param measured what is to be so much: it falls as a picture is taken higher, or rises with it */
function raised(
  camera: StillCamera,
  aspect: number,
  wanted: number,
  measured: (projection: Projection) => number | null,
): StillCamera | null {
  const { pose, lens } = camera;
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  const byLens = Math.abs(tilt) < LEVEL && lens.shift[1] !== 0;
  const made = (amount: number): StillCamera =>
    byLens
      ? { pose, lens: { ...lens, shift: [lens.shift[0], amount] } }
      : { pose: { ...pose, orientation: orientationOf({ pan, tilt: amount, roll }) }, lens };
  const off = (amount: number) => {
    const { pose: at, lens: through } = made(amount);
    const value = measured(new Projection(throughLens(through), aspect, at.position, at.orientation));
    return value === null ? null : value - wanted;
  };
  const now = byLens ? lens.shift[1] : tilt;
  const here = off(now);
  if (here === null) return null;
  const most = byLens ? MOST_SHIFT : MOST_TILT;
  // Which way it falls is seen beside where it is.
  const beside = off(now + 1e-4);
  if (beside === null) return null;
  const falls = beside < here;
  let [inside, outside] = [now, here > 0 === falls ? most : -most];
  for (let round = 0; round < ROUNDS; round += 1) {
    const middle = (inside + outside) / 2;
    const value = off(middle);
    // Beyond where it can be measured nothing is to be found.
    if (value !== null && value > 0 === here > 0) inside = middle;
    else outside = middle;
  }
  const found = off(inside);
  return found !== null && Math.abs(found) < 1e-4 ? made(inside) : null;
}
