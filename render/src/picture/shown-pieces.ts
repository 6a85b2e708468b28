import { countTriangles, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { Occlusion } from '@eskovan/core/optics';
import { Matrix4, Vector3, type Group, type Mesh, type PerspectiveCamera } from 'three';
import { occludersOf } from '../scene/occluders.ts';
import type { Levels } from '../scene/stand-in.ts';

/** Below so many triangles, drawing what is hidden costs less than finding it. */
const WORTH_HIDING = 15_000;

/** In how much detail a picture that does not move is drawn. */
export type StillLevel = Exclude<keyof Levels, 'moving'>;

/** Which pieces of a model are drawn, and in what detail. */
export class ShownPieces {
  private readonly occlusion: Occlusion | null;

  /** @param stands does a part stay where it is, and is always there? */
  constructor(
    private readonly group: Group,
    model: SceneModel,
    stands: (part: ScenePart) => boolean,
  ) {
    this.occlusion = countTriangles(model) < WORTH_HIDING ? null : new Occlusion(occludersOf(model, stands));
  }

  /** All that there is, for a picture that rests or is finished. */
  all(level: StillLevel): void {
    for (const child of this.group.children) {
      setLevel(child as Mesh, level);
      child.visible = true;
    }
  }

  /**
   * What a picture in passing needs: not what is too far away to be seen, nor what is behind something else.
   * @param reach part of the distance to which detail is shown, 0…1
   * @param covered leaves out what nearer faces cover, as they are seen by this camera
   */
  inPassing(camera: PerspectiveCamera, reach: number, covered: boolean): void {
    const occlusion = covered ? this.occlusion : null;
    occlusion?.look(seen.multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse).elements);
    for (const child of this.group.children) {
      const { geometry, userData } = child as Mesh;
      setLevel(child as Mesh, 'moving');
      const { center, radius } = geometry.boundingSphere!;
      const away = camera.position.distanceTo(middle.copy(center).applyMatrix4(child.matrix)) - radius;
      child.visible = away < reach * (userData['reach'] as number);
      if (!child.visible || !occlusion || (userData['group'] as number) >= 0) continue;
      const { min, max } = geometry.boundingBox!;
      child.visible = occlusion.shows([min.x, min.y, min.z, max.x, max.y, max.z]);
    }
  }
}

function setLevel({ geometry, userData }: Mesh, level: keyof Levels): void {
  const levels = userData['levels'] as Levels | null | undefined;
  if (levels && geometry.index !== levels[level]) geometry.setIndex(levels[level]);
}

const middle = new Vector3();
const seen = new Matrix4();
