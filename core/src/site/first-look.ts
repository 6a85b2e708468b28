import { DEFAULT_LENS, type Bounds, type Lens, type Pose } from '../document/index.ts';
import { fitted } from '../framing/index.ts';
import { orientationOf } from '../geometry/index.ts';

/** A first look comes from the south-west, this far above the horizon, radians. */
const FROM = { pan: -0.64, tilt: -0.42, roll: 0 } as const;
/** Part of the frame that what is framed fills. */
const FILL = 0.86;

/**
 * A first look at something nobody has looked at yet: the whole of it, from the south-west and above, whatever its shape
 * and size.
 * @param bounds what is to be seen, metres
 * @param aspect width over height of the picture
 */
export const firstLook = (bounds: Bounds, aspect: number, lens: Lens = DEFAULT_LENS): Pose =>
  fitted(bounds, orientationOf(FROM), { lens, aspect, fill: FILL }).pose;
