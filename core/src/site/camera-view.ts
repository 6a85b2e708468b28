import { Quaternion, Vector3 } from 'three';
import { DEFAULT_LENS, DEFAULT_SENSOR, type Lens, type Placement, type ViewBody } from '../document/index.ts';
import type { SceneCamera } from '../format/index.ts';
import { focalLengthFor, usedSensor } from '../optics/index.ts';
import { placementMatrix } from './placement.ts';

/**
 * A camera of a file as a view of the project: it stands where the model was put, and sees exactly its own vertical
 * angle in pictures of the project's shape.
 * @param aspect width over height of the project's pictures
 * @returns null for angles that no lens of 1–2000 mm sees, and parallel projections of nothing
 */
export function viewOfCamera(camera: SceneCamera, placement: Placement, aspect: number): ViewBody | null {
  const lens = lensOf(camera, placement, aspect);
  if (!lens) return null;
  const place = placementMatrix(placement);
  const turn = new Quaternion();
  place.decompose(new Vector3(), turn, new Vector3());
  const [x, y, z, w] = turn
    .multiply(new Quaternion(...camera.orientation))
    .normalize()
    .toArray();
  const position = new Vector3(...camera.position).applyMatrix4(place).toArray();
  return {
    pose: { position, orientation: [x, y, z, w] },
    lens,
    thumbnail: null,
  };
}

function lensOf({ verticalAngle, height }: SceneCamera, { metresPerUnit }: Placement, aspect: number): Lens | null {
  if (verticalAngle === null) return height ? { ...DEFAULT_LENS, parallel: height * metresPerUnit } : null;
  const focalLengthMm = focalLengthFor(verticalAngle, usedSensor(DEFAULT_SENSOR, aspect).heightMm);
  return focalLengthMm >= 1 && focalLengthMm <= 2000 ? { ...DEFAULT_LENS, focalLengthMm } : null;
}
