import type { Bounds } from '@eskovan/core/document';
import { countTriangles, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { Occlusion } from '@eskovan/core/optics';
import { Matrix4, Vector3, type Camera, type Group, type Mesh } from 'three';
import { isMoving } from '../scene/moving.ts';
import { occludersOf } from '../scene/occluders.ts';
import type { Levels } from '../scene/stand-in.ts';
import type { PictureSize } from './picture-size.ts';

/** Below so many triangles, drawing what is hidden costs less than finding it. */
const WORTH_HIDING = 15_000;
/** Pixels from which finding it for each of them costs too much memory. */
const MOST_PIXELS = 2_200_000;

/** In how much detail a picture that does not move is drawn. */
export type StillLevel = Exclude<keyof Levels, 'moving'>;

/** Which pieces of a model are drawn, and in what detail. */
export class ShownPieces {
  private readonly pieces: readonly Piece[];
  private readonly hides: boolean;
  /** Made for the first picture. */
  private occlusion: Occlusion | null = null;

  /** @param stands does a part stay where it is, and is always there? */
  constructor(
    group: Group,
    private readonly model: SceneModel,
    private readonly stands: (part: ScenePart) => boolean,
  ) {
    this.hides = countTriangles(model) >= WORTH_HIDING;
    this.pieces = (group.children as Mesh[]).map((mesh) => {
      const { min, max } = mesh.geometry.boundingBox!;
      return { mesh, box: isMoving(mesh) ? null : { min: min.toArray(), max: max.toArray() } };
    });
  }

  /**
   * What a pass of a picture that rests or is finished needs: all but what nearer faces cover at each of its pixels.
   * @param covered leaves that out, as this camera sees it
   */
  inFull(level: StillLevel, camera: Camera, size: PictureSize, covered: boolean): void {
    const occlusion = covered && size.width * size.height <= MOST_PIXELS ? this.seenBy(camera, size) : null;
    for (const { mesh, box } of this.pieces) {
      setLevel(mesh, level);
      mesh.visible = !occlusion || !box || occlusion.shows(box);
    }
  }

  /**
   * What a picture in passing needs: not what is too far away to be seen, nor what is behind something else.
   * @param reach part of the distance to which detail is shown, 0…1
   * @param covered leaves out what nearer faces cover, as they are seen by this camera
   */
  inPassing(camera: Camera, reach: number, covered: boolean): void {
    const occlusion = covered ? this.seenBy(camera) : null;
    eye.setFromMatrixPosition(camera.matrixWorld);
    for (const { mesh, box } of this.pieces) {
      setLevel(mesh, 'moving');
      const { center, radius } = mesh.geometry.boundingSphere!;
      const away = eye.distanceTo(middle.copy(center).applyMatrix4(mesh.matrix)) - radius;
      mesh.visible = away < reach * (mesh.userData['reach'] as number);
      if (mesh.visible && occlusion && box) mesh.visible = occlusion.shows(box);
    }
  }

  private seenBy({ projectionMatrix, matrixWorldInverse }: Camera, size?: PictureSize): Occlusion | null {
    if (!this.hides) return null;
    this.occlusion ??= new Occlusion(occludersOf(this.model, this.stands));
    this.occlusion.look(seen.multiplyMatrices(projectionMatrix, matrixWorldInverse).elements, size);
    return this.occlusion;
  }
}

interface Piece {
  mesh: Mesh;
  /** Null for what moves: it is always drawn. */
  box: Bounds | null;
}

function setLevel({ geometry, userData }: Mesh, level: keyof Levels): void {
  const levels = userData['levels'] as Levels | null | undefined;
  if (levels && geometry.index !== levels[level]) geometry.setIndex(levels[level]);
}

const eye = new Vector3();
const middle = new Vector3();
const seen = new Matrix4();
