import type { Bounds, Lens, Pose, Quaternion, StillCamera, Vec3 } from '../document/index.ts';
import { cornersOf, forwardOf, less, middle, orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';

/** How a subject is framed. */
export interface Fit {
  lens: Lens;
  /** Width over height of the picture. */
  aspect: number;
  /** The part of the picture's width or height that it fills, whichever is filled first, 0…1. */
  fill: number;
}

/**
 * The nearest camera of an orientation that has a box within the wanted part of its picture, in the middle of it. Exact:
 * each pair of the picture's edges is a wedge, and the box's corners say where its tip must lie.
 * @param bounds the box, metres
 */
export function fitted(bounds: Bounds, orientation: Quaternion, { lens, aspect, fill }: Fit): StillCamera {
  const view = throughLens(lens);
  const centre = middle(bounds);
  const axes = new Projection(view, aspect, centre, orientation);
  const corners = cornersOf(bounds).map((corner) => axes.alongAxes(less(corner, centre)));
  const extent = (k: 0 | 1) => {
    const along = corners.map((corner) => corner[k]);
    return { min: Math.min(...along), max: Math.max(...along) };
  };
  if (view.kind === 'parallel') {
    const [across, upward] = [extent(0), extent(1)];
    const parallel = Math.max(upward.max - upward.min, (across.max - across.min) / aspect) / fill;
    // Far enough away that nothing of it is behind the eye.
    const back = Math.max(...corners.map(([, , depth]) => -depth)) + parallel;
    const aside: Vec3 = [(across.min + across.max) / 2, (upward.min + upward.max) / 2, -back];
    return { pose: { position: plus(centre, axes.fromAxes(aside)), orientation }, lens: { ...lens, parallel } };
  }
  const { left, right, bottom, top } = axes.window;
  const across = wedge(corners, 0, ...partOf(left, right, fill));
  const upward = wedge(corners, 1, ...partOf(bottom, top, fill));
  const back = Math.max(across.back, upward.back);
  const aside: Vec3 = [across.at(back), upward.at(back), -back];
  return { pose: { position: plus(centre, axes.fromAxes(aside)), orientation }, lens };
}

/** The middle part of an interval. */
const partOf = (low: number, high: number, part: number): [number, number] => {
  const [centre, half] = [(low + high) / 2, ((high - low) / 2) * part];
  return [centre - half, centre + half];
};

/**
 * Where the tip of a wedge must lie that holds all points. @param low slope of its lower side @param high of its upper
 * @returns how far back at least, and where across at such a distance
 */
function wedge(points: readonly Vec3[], k: 0 | 1, low: number, high: number) {
  const above = Math.max(...points.map((point) => point[k] - high * point[2]));
  const below = Math.min(...points.map((point) => point[k] - low * point[2]));
  return {
    back: (above - below) / (high - low),
    at: (back: number) => (above - high * back + below - low * back) / 2,
  };
}

const plus = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** The sides from which something can be looked at, clockwise from north: their bearings in degrees. */
export const SIDES = [0, 45, 90, 135, 180, 225, 270, 315] as const;
export type Side = (typeof SIDES)[number];

/**
 * The orientation of a camera that stands on a side of something and looks at it.
 * @param side bearing of the camera from the thing, radians clockwise from north
 * @param down how far it looks down, radians
 * @param north angle from the plan's −Z towards +X, radians
 */
export const fromSide = (side: number, down: number, north: number): Quaternion =>
  orientationOf({ pan: Math.PI - side - north, tilt: -down, roll: 0 });

/**
 * The lens changed, and the camera moved to or fro along its axis so that what is at a distance keeps its place and its
 * size: depth / focal length stays the same.
 * @param depth of the subject before the eye's plane, metres
 * @returns null where there is nothing before the eye to hold
 */
export function held({ pose, lens }: StillCamera, focalLengthMm: number, depth: number): StillCamera | null {
  if (!(depth > 0) || lens.parallel !== undefined) return null;
  const ahead = forwardOf(pose.orientation);
  const by = depth * (1 - focalLengthMm / lens.focalLengthMm);
  const position = pose.position.map((value, k) => value + ahead[k]! * by) as Vec3;
  const { focus } = lens;
  return {
    pose: { ...pose, position },
    // What was sharp stays sharp.
    lens: { ...lens, focalLengthMm, ...(focus !== undefined && { focus: Math.max(0.01, focus - by) }) },
  };
}

/** {@link held} for the middle of a box. */
export const heldOn = (
  bounds: Bounds,
  camera: StillCamera,
  focalLengthMm: number,
  aspect: number,
): StillCamera | null => {
  const { position, orientation } = camera.pose;
  const projection = new Projection(throughLens(camera.lens), aspect, position, orientation);
  return held(camera, focalLengthMm, projection.project(middle(bounds)).depth);
};

/** Longer and shorter lenses that a subject is held with beside the one there is, as parts of its focal length. */
const BESIDE = [0.5, 1, 2] as const;

/**
 * The same subject in the same size through a wide lens, the present one and a long one.
 * @param limits shortest and longest focal length, mm
 * @returns the wide one first; none where there is nothing before the eye to hold
 */
export function heldBeside(
  bounds: Bounds,
  camera: StillCamera,
  aspect: number,
  [shortest, longest]: readonly [number, number],
): StillCamera[] {
  return BESIDE.map((part) => Math.round(part * camera.lens.focalLengthMm * 10) / 10)
    .map((length) => Math.min(longest, Math.max(shortest, length)))
    .flatMap((length) => heldOn(bounds, camera, length, aspect) ?? []);
}

/** The eye stays where it is and looks at a place. Straight up or down it keeps its bearing. */
export function lookingAt({ position }: Pose, at: Vec3, pan = 0): Pose {
  const [dx, dy, dz] = less(at, position);
  const flat = Math.hypot(dx, dz);
  return {
    position,
    orientation: orientationOf({ pan: flat > 0 ? Math.atan2(-dx, -dz) : pan, tilt: Math.atan2(dy, flat), roll: 0 }),
  };
}
