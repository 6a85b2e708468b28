import type { Vec3 } from '../document/index.ts';
import type { Projection } from '../optics/index.ts';

/** A straight line of the scene, metres. */
export type SceneLine = readonly [from: Vec3, to: Vec3];

/** A straight line of a picture: −1…1 from its centre to the right and upper edge. */
export type PictureLine = readonly [from: readonly [x: number, y: number], to: readonly [x: number, y: number]];

/** Lines are cut off so near before the eye that sees them, metres: what lies behind it has no place in its picture. */
const NEAREST = 0.02;

/**
 * What a camera sees, as lines for another picture: from the eye to the corners of its picture at a distance, and that
 * picture's edges, the upper one last. Parallel rays begin at the edges of the picture itself.
 * @param distance before the eye's plane, metres
 */
export function fieldLines(camera: Projection, distance: number): SceneLine[] {
  const corners = CORNERS.map(([x, y]) => {
    const { from, direction } = camera.ray(x, y);
    const ahead = camera.alongAxes(direction)[2];
    const end = from.map((value, k) => value + (direction[k]! / ahead) * distance) as Vec3;
    return { from, end };
  });
  return [
    ...corners.map(({ from, end }): SceneLine => [from, end]),
    ...corners.map(({ end }, i): SceneLine => [end, corners[(i + 1) % corners.length]!.end]),
  ];
}

/** From the upper right one clockwise, so that the upper edge is the last of four. */
const CORNERS = [
  [1, 1],
  [1, -1],
  [-1, -1],
  [-1, 1],
] as const;

/** A line of the scene in a picture, without what of it lies behind the eye; null where that is all of it. */
export function lineInPicture(picture: Projection, [from, to]: SceneLine): PictureLine | null {
  const depth = (point: Vec3) => picture.project(point).depth;
  const [a, b] = [depth(from), depth(to)];
  if (picture.view.kind === 'lens' && a < NEAREST && b < NEAREST) return null;
  const cut = (near: Vec3, far: Vec3, nearDepth: number, farDepth: number): Vec3 => {
    if (picture.view.kind === 'parallel' || nearDepth >= NEAREST) return near;
    const part = (NEAREST - nearDepth) / (farDepth - nearDepth);
    return near.map((value, k) => value + (far[k]! - value) * part) as Vec3;
  };
  const place = (point: Vec3) => {
    const { x, y } = picture.project(point);
    return [x, y] as const;
  };
  return [place(cut(from, to, a, b)), place(cut(to, from, b, a))];
}
