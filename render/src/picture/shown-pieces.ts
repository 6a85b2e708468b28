import { countTriangles, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { Occlusion } from '@eskovan/core/optics';
import { Matrix4, Vector3, type Camera, type Group, type Material, type Mesh } from 'three';
import type { ClusterLevels, Clusters } from '../scene/clusters.ts';
import { isMoving } from '../scene/moving.ts';
import { occludersOf } from '../scene/occluders.ts';
import { DrawnClusters, type Level } from './drawn-clusters.ts';
import type { PictureSize } from './picture-size.ts';

/** Below so many triangles, drawing what is hidden costs less than finding it. */
const WORTH_HIDING = 15_000;
/** Pixels from which finding it for each of them costs too much memory. */
const MOST_PIXELS = 2_200_000;

/** In how much detail a picture that does not move is drawn. */
export type StillLevel = Exclude<Level, 'moving'>;

/** Which pieces of a model are drawn, and in what detail. */
export class ShownPieces {
  /** What stands, in clusters. */
  private readonly standing: readonly Standing[];
  /** What moves: each piece is drawn or not. */
  private readonly moving: readonly { mesh: Mesh; clusters: DrawnClusters }[];
  /** Lines, by where they are. */
  private readonly lines: readonly { mesh: Mesh; box: readonly number[] | null }[];
  private readonly hides: boolean;
  /** Made for the first picture. */
  private occlusion: Occlusion | null = null;
  /** Sees what is in the picture, whatever covers it. */
  private readonly frame = new Occlusion({
    soup: new Float32Array(0),
    twoSided: new Uint8Array(0),
    sizes: new Float32Array(0),
  });

  /** @param stands does a part stay where it is, and is always there? */
  constructor(
    group: Group,
    private readonly model: SceneModel,
    private readonly stands: (part: ScenePart) => boolean,
  ) {
    this.hides = countTriangles(model) >= WORTH_HIDING;
    const meshes = group.children as Mesh[];
    const inClusters = (mesh: Mesh) => {
      const levels = mesh.userData['levels'] as ClusterLevels | undefined;
      return levels ? [{ mesh, clusters: new DrawnClusters(mesh, levels) }] : [];
    };
    const all = meshes.flatMap(inClusters);
    this.moving = all.filter(({ mesh }) => isMoving(mesh));
    this.standing = all
      .filter(({ mesh }) => !isMoving(mesh))
      .map(({ mesh, clusters }) => ({ clusters, through: (mesh.material as Material).transparent }));
    this.lines = meshes
      .filter(({ userData }) => !userData['levels'])
      .map((mesh) => ({ mesh, box: isMoving(mesh) ? null : boxOf(mesh) }));
  }

  /**
   * What a pass of a picture that rests or is finished needs: all but what nearer faces cover at each of its pixels.
   * @param covered leaves that out, as this camera sees it
   */
  inFull(level: StillLevel, camera: Camera, size: PictureSize, covered: boolean): void {
    const seen = this.seenBy(camera, size, covered && size.width * size.height <= MOST_PIXELS);
    eye.setFromMatrixPosition(camera.matrixWorld);
    for (const { clusters, through } of this.standing)
      clusters.show(level, (cluster, { boxes }) => seen.shows(boxes, 6 * cluster), through ? eye : null);
    for (const { clusters } of this.moving) clusters.showAll(level);
    for (const { mesh, box } of this.lines) mesh.visible = !box || seen.shows(box);
  }

  /**
   * What a picture in passing needs: not what is too far away to be seen, nor what is behind something else.
   * @param reach part of the distance to which detail is shown, 0…1
   * @param covered leaves out what nearer faces cover, as they are seen by this camera
   */
  inPassing(camera: Camera, size: PictureSize, reach: number, covered: boolean): void {
    const seen = this.seenBy(camera, size, covered);
    eye.setFromMatrixPosition(camera.matrixWorld);
    const shows = (cluster: number, { boxes, cells, reaches, cellBoxes }: Clusters) =>
      distanceTo(cellBoxes, 6 * cells[cluster]!, eye) < reach * reaches[cells[cluster]!]! &&
      seen.shows(boxes, 6 * cluster);
    for (const { clusters, through } of this.standing) clusters.show('moving', shows, through ? eye : null);
    for (const { mesh, clusters } of this.moving) {
      clusters.showAll('moving');
      mesh.visible = isWithin(mesh, reach);
    }
    for (const { mesh, box } of this.lines) mesh.visible = isWithin(mesh, reach) && (!box || seen.shows(box));
  }

  /**
   * Looks from a camera.
   * @param grid places that are looked at
   * @param covered what nearer faces cover is not seen
   */
  private seenBy({ projectionMatrix, matrixWorldInverse }: Camera, grid: PictureSize, covered: boolean): Occlusion {
    seen.multiplyMatrices(projectionMatrix, matrixWorldInverse);
    if (!this.hides || !covered) {
      this.frame.look(seen.elements, ONE_PLACE);
      return this.frame;
    }
    this.occlusion ??= new Occlusion(occludersOf(this.model, this.stands));
    this.occlusion.look(seen.elements, grid);
    return this.occlusion;
  }
}

interface Standing {
  clusters: DrawnClusters;
  /** One sees through it. */
  through: boolean;
}

/** Where nothing covers anything, every place sees the same. */
const ONE_PLACE: PictureSize = { width: 1, height: 1 };

/** A piece as it is now. */
function isWithin({ geometry, matrix, userData }: Mesh, reach: number): boolean {
  const { center, radius } = geometry.boundingSphere!;
  return eye.distanceTo(middle.copy(center).applyMatrix4(matrix)) - radius < reach * (userData['reach'] as number);
}

/** How far a point is from a box, metres; nothing inside it. */
function distanceTo(boxes: Float32Array, at: number, { x, y, z }: Vector3): number {
  return Math.hypot(
    Math.max(boxes[at]! - x, x - boxes[at + 3]!, 0),
    Math.max(boxes[at + 1]! - y, y - boxes[at + 4]!, 0),
    Math.max(boxes[at + 2]! - z, z - boxes[at + 5]!, 0),
  );
}

function boxOf({ geometry }: Mesh): number[] {
  if (!geometry.boundingBox) geometry.computeBoundingBox();
  const { min, max } = geometry.boundingBox!;
  return [...min, ...max];
}

const eye = new Vector3();
const middle = new Vector3();
const seen = new Matrix4();
