import type { Bounds } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { depthRange, isFocused, Projection } from '@eskovan/core/optics';
import { Vector3, type PerspectiveCamera } from 'three';
import type { PictureSize } from './picture-size.ts';

export type Pair = readonly [number, number];

/**
 * Sets a camera for one pass of a picture.
 * @param bounds of what is drawn, metres
 * @param pixelShift moves the picture by parts of a pixel
 * @param opening place in the lens's opening, a disc of radius 1: what is at the distance of focus stays where it is
 */
export function aimCamera(
  camera: PerspectiveCamera,
  { position, orientation, view }: CameraSample,
  size: PictureSize,
  bounds: Bounds,
  pixelShift: Pair,
  opening: Pair,
): void {
  const frame = size.frame ?? size;
  const projection = new Projection(view, frame.width / frame.height, position, orientation);
  const { window } = projection;
  const pixel = (window.right - window.left) / frame.width;
  const aside = apertureShift(view, opening);
  const parallax = view.kind === 'lens' ? 1 / (view.focus ?? Infinity) : 0;
  const centreX = (window.left + window.right) / 2 + pixel * pixelShift[0] - aside[0] * parallax;
  const centreY = (window.bottom + window.top) / 2 + pixel * pixelShift[1] - aside[1] * parallax;
  const [halfX, halfY] = [(pixel * size.width) / 2, (pixel * size.height) / 2];
  const { near, far } = depthRange(position, bounds, view);
  Object.assign(camera, { near, far });
  camera.projectionMatrix.fromArray(
    projection.matrix(near, far, {
      left: centreX - halfX,
      right: centreX + halfX,
      bottom: centreY - halfY,
      top: centreY + halfY,
    }),
  );
  camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
  camera.quaternion.fromArray(orientation);
  camera.position.set(aside[0], aside[1], 0).applyQuaternion(camera.quaternion);
  camera.position.add(middle.fromArray(position));
  camera.updateMatrix();
  camera.updateMatrixWorld(true);
}

const middle = new Vector3();

/** How far a ray through a place of the opening starts beside the lens's middle, metres: its radius is f / 2N. */
function apertureShift(view: CameraSample['view'], [u, v]: Pair): Pair {
  if (!isFocused(view)) return [0, 0];
  const radius = view.focalLengthMm / 2000 / view.fNumber;
  return [u * radius, v * radius];
}
