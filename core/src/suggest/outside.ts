import { type Bounds, type Lens, type StillCamera, type Vec3 } from '../document/index.ts';
import { fitted } from '../framing/index.ts';
import { diagonalOf, middle, orientationOf, toRadians } from '../geometry/index.ts';
import type { Footing } from '../survey/index.ts';
import type { LookRound } from './look-round.ts';
import type { Terms } from './terms.ts';

/** Sides that something is looked at from: first over its corners, so that two of its sides show. */
const FROM = [45, 135, 225, 315, 0, 90, 180, 270].map(toRadians);
const CORNERS = 4;
/** Part of the picture that it fills. */
const FILL = 0.72;
/** What has no ground to stand on is looked at from this far above, radians. */
const DOWN = toRadians(12);

export interface OutsideView {
  camera: StillCamera;
  terms: Terms;
}

interface Outside {
  bounds: Bounds;
  /** Direction to the sun; null where there is none. */
  sun: Vec3 | null;
  lens: Lens;
  aspect: number;
  /** Of who stands on the ground, metres; null: nobody stands. */
  eyeHeight: number | null;
  footing: Footing;
}

/** Good places around a building or a thing, best first: over a corner, in the sun, nothing in between. */
export function aroundIt(look: LookRound, { bounds, sun, lens, aspect, eyeHeight, footing }: Outside): OutsideView[] {
  const centre = middle(bounds);
  const views = FROM.flatMap((side, i): OutsideView[] => {
    const orientation = orientationOf({ pan: side, tilt: eyeHeight === null ? -DOWN : 0, roll: 0 });
    const { pose, lens: seen } = fitted(bounds, orientation, { lens, aspect, fill: FILL });
    const position = eyeHeight === null ? pose.position : onGround(pose.position, eyeHeight, footing);
    if (!position) return [];
    // Something may stand before its middle, but not all over it.
    const free = [0.3, 0.5, 0.7].filter((part) => {
      const target: Vec3 = [centre[0], bounds.min[1] + part * (bounds.max[1] - bounds.min[1]), centre[2]];
      return isSeen(look, position, target, bounds);
    }).length;
    if (free === 0) return [];
    const back: Vec3 = [Math.sin(side), 0, Math.cos(side)];
    const lit = sun ? 0.5 + 0.5 * (back[0] * sun[0] + back[2] * sun[2]) : 0.5;
    return [
      {
        camera: { pose: { position, orientation }, lens: seen },
        terms: { depth: 0.5, 'two sides': i < CORNERS ? 1 : 0, light: lit, subject: free / 3, 'room before it': 1 },
      },
    ];
  });
  return views;
}

/** The eye of somebody who stands at a place of the plan; null where there is no ground. */
function onGround([x, y, z]: Vec3, eyeHeight: number, footing: Footing): Vec3 | null {
  const ground = footing.surfaceUnder(x, z, y);
  return ground === null ? null : [x, ground + eyeHeight, z];
}

/** Is a point of a thing seen from an eye: is what is met first on the way a part of the thing? */
function isSeen(look: LookRound, eye: Vec3, target: Vec3, { min, max }: Bounds): boolean {
  const way = target.map((value, k) => value - eye[k]!) as Vec3;
  const length = Math.hypot(...way);
  const direction = way.map((value) => value / length) as Vec3;
  const met = look.nearest(eye, direction);
  if (!met || met.distance >= length) return true;
  const about = Math.min(ABOUT, ABOUT_PART * diagonalOf({ min, max }));
  return direction.every((value, k) => {
    const place = eye[k]! + value * met.distance;
    return place > min[k]! - about && place < max[k]! + about;
  });
}
/** What juts out so far belongs to it: metres, and of a small thing a part of its size. */
const ABOUT = 0.6;
const ABOUT_PART = 0.1;
