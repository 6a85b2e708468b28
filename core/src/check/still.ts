import type { Bounds, CheckLimits, Pose, StillCamera, Vec3 } from '../document/index.ts';
import { anglesOf, orientationOf, toDegrees, toRadians } from '../geometry/index.ts';
import { convergence, edgeStretch, reachOf, straightened } from '../framing/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { FOR_PEOPLE, type Footing } from '../survey/index.ts';
import { facadeFindings, insideFindings, subjectFindings } from './still-scene.ts';
import { problemsFirst } from './severity.ts';
import { burntFindings, type Burnt } from './burnt.ts';
import type { StillFinding } from './still-finding.ts';

/** An eye higher over the floor than this does not stand on it: it looks from above, metres. */
const FROM_ABOVE = 3.5;
/** From up there a camera that looks down by more than this does so on purpose, radians. */
const DELIBERATE = toRadians(10);
/** Places of the picture where something near is looked for, −1…1. */
const LOOKED = [-0.9, -0.45, 0, 0.45, 0.9];

/** Near a product is this part of its size. */
const NEAR_PART = 0.05;

/** What a still is checked against. */
export interface StillSite {
  footing: Footing;
  /** Largest extent of what is shown, metres. */
  size: number;
}

/**
 * What a practised eye would say of a still's camera: problems first.
 * @param aspect width over height of the picture
 * @param site null where it has not been measured
 * @param subject what the picture is about, where that was said
 * @param burnt how light its picture is, once that has been looked at
 */
export function checkStill(
  camera: StillCamera,
  aspect: number,
  site: StillSite | null,
  limits: CheckLimits,
  subject: Bounds | null = null,
  burnt: Burnt | null = null,
): StillFinding[] {
  const { pose, lens } = camera;
  const projection = new Projection(throughLens(lens), aspect, pose.position, pose.orientation);
  const known = site?.footing.knowsSolids ? site.footing : null;
  return problemsFirst([
    ...levelFindings(camera, limits),
    ...(!site || standsUpright(camera, site) ? convergingFindings(camera, projection, aspect, limits) : []),
    ...stretchFindings(camera, projection, limits),
    ...(site && site.size >= FOR_PEOPLE && lens.parallel === undefined
      ? eyeFindings(camera, site.footing, limits)
      : []),
    // What is cut off on purpose is not in the way.
    ...(site && lens.parallel === undefined && !lens.nearCut
      ? nearFindings(projection, site.footing, Math.min(limits.tooNear, NEAR_PART * site.size))
      : []),
    ...(known && lens.parallel === undefined ? insideFindings(projection, known) : []),
    ...(known && lens.parallel === undefined ? facadeFindings(camera, projection, known, limits) : []),
    ...(subject ? subjectFindings(camera, projection, aspect, subject, known) : []),
    ...(burnt ? burntFindings(camera, burnt, limits) : []),
  ]);
}

/** A horizon that is not level. */
function levelFindings({ pose, lens }: StillCamera, limits: CheckLimits): StillFinding[] {
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  const worst = Math.abs(toDegrees(roll));
  if (worst <= limits.offLevel) return [];
  const level = { ...pose, orientation: orientationOf({ pan, tilt, roll: 0 }) };
  return [
    { rule: 'off level', severity: 'problem', worst, limit: limits.offLevel, point: null, fix: { pose: level, lens } },
  ];
}

/**
 * Are verticals meant to be upright? Whoever looks at a thing on a table, or down from above, tilts the camera on purpose
 * (common practice, no source).
 */
function standsUpright({ pose }: StillCamera, { footing, size }: StillSite): boolean {
  if (size < FOR_PEOPLE) return false;
  return standsOn(pose, footing) !== null || anglesOf(pose.orientation).tilt > -DELIBERATE;
}

/** Height of the floor that an eye stands on, metres; null where there is none, or it looks from above. */
function standsOn({ position }: Pose, { floors }: Footing): number | null {
  const floor = floors.floorUnder(position);
  return floor !== null && position[1] - floor <= FROM_ABOVE ? floor : null;
}

/** Verticals that are not upright. */
function convergingFindings(
  { pose, lens }: StillCamera,
  projection: Projection,
  aspect: number,
  limits: CheckLimits,
): StillFinding[] {
  const leaning = Math.abs(toDegrees(convergence(projection, aspect)));
  if (leaning <= limits.converging) return [];
  return [
    {
      rule: 'converging',
      severity: 'note',
      worst: leaning,
      limit: limits.converging,
      point: null,
      fix: straightened({ pose, lens }),
    },
  ];
}

/** Things at the edge that a wide lens draws out; a longer lens is the mend. */
function stretchFindings({ pose, lens }: StillCamera, projection: Projection, limits: CheckLimits): StillFinding[] {
  const worst = edgeStretch(projection);
  const limit = limits.stretched;
  if (worst <= limit) return [];
  // Sensor and shift are seen as much narrower as the lens is longer.
  const focalLengthMm = Math.ceil((lens.focalLengthMm * reachOf(worst)) / reachOf(limit));
  return [
    { rule: 'stretched', severity: 'note', worst, limit, point: null, fix: { pose, lens: { ...lens, focalLengthMm } } },
  ];
}

/** An eye at a height that nobody has, over the floor that is under it. */
function eyeFindings({ pose, lens }: StillCamera, footing: Footing, limits: CheckLimits): StillFinding[] {
  const [x, y, z] = pose.position;
  const floor = standsOn(pose, footing);
  if (floor === null) return [];
  const height = y - floor;
  const low = height < limits.eyeLow;
  if (!low && height <= limits.eyeHigh) return [];
  const limit = low ? limits.eyeLow : limits.eyeHigh;
  return [
    {
      rule: low ? 'eye too low' : 'eye too high',
      severity: 'note',
      worst: height,
      limit,
      point: [x, floor, z],
      fix: { pose: { ...pose, position: [x, floor + limit, z] }, lens },
    },
  ];
}

/** Something so near before the camera that it covers the picture or is cut by it. */
function nearFindings(projection: Projection, footing: Footing, limit: number): StillFinding[] {
  if (!footing.knowsSolids)
    return [{ rule: 'not looked at', severity: 'note', worst: null, limit: null, point: null, fix: null }];
  let nearest: { distance: number; point: Vec3 } | null = null;
  for (const u of LOOKED)
    for (const v of LOOKED) {
      const { from, direction } = projection.ray(u, v);
      const to = from.map((value, k) => value + direction[k]! * limit) as Vec3;
      const [hit] = footing.solids.between(from, to);
      if (!hit || (nearest && hit.at * limit >= nearest.distance)) continue;
      const distance = hit.at * limit;
      nearest = { distance, point: from.map((value, k) => value + direction[k]! * distance) as Vec3 };
    }
  if (!nearest) return [];
  const { distance, point } = nearest;
  return [{ rule: 'too near', severity: 'problem', worst: distance, limit, point, fix: null }];
}
