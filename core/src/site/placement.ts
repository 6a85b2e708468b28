import { Box3, Matrix4, Vector3 } from 'three';
import type { Bounds, Placement } from '../document/index.ts';

/** The matrix that takes a model's own coordinates to the project's: scale, set upright, turn, move. */
export function placementMatrix({ metresPerUnit, up, turn, position }: Placement): Matrix4 {
  const matrix = new Matrix4().makeTranslation(...position);
  matrix.multiply(new Matrix4().makeRotationY(turn));
  // Z up to Y up: a quarter turn about X, so that +Y (north on a drawing) becomes −Z (up on the plan).
  if (up === 'z') matrix.multiply(new Matrix4().makeRotationX(-Math.PI / 2));
  return matrix.multiply(new Matrix4().makeScale(metresPerUnit, metresPerUnit, metresPerUnit));
}

/** Bounds of a placed box; larger than those of the placed model where it is turned by no right angle. */
export function placeBounds(bounds: Bounds, placement: Placement): Bounds {
  const box = new Box3(new Vector3(...bounds.min), new Vector3(...bounds.max));
  box.applyMatrix4(placementMatrix(placement));
  return { min: box.min.toArray(), max: box.max.toArray() };
}

/** The placement moved up or down so that the model's lowest point is at `height` metres. */
export function dropTo(bounds: Bounds, placement: Placement, height: number): Placement {
  const [x, y, z] = placement.position;
  return { ...placement, position: [x, y + height - placeBounds(bounds, placement).min[1], z] };
}
