import type { SiteMotion } from '@eskovan/core/action';
import { Matrix4, Vector3, type Group, type Mesh, type Object3D } from 'three';

/** The pieces of a scene that move, and where they are just now. */
export class MovingMeshes {
  private readonly pieces: readonly Mesh[];
  private readonly places: readonly Matrix4[];

  constructor(
    scene: Group,
    private readonly motion: SiteMotion,
  ) {
    this.pieces = (scene.children as Mesh[]).filter(isMoving);
    this.places = motion.places();
    this.place(0);
  }

  /** @param time seconds into the move */
  place(time: number): void {
    this.motion.place(time, this.places);
    for (const piece of this.pieces) put(piece, this.places[groupOf(piece)]!);
  }

  /** Puts something else where a group is: −1 is where nothing moves. */
  follow(object: Object3D, group: number): void {
    put(object, this.places[group] ?? REST);
  }

  /** Is anything that moves within `reach` metres of a point just now? */
  isNear(point: Vector3, reach: number): boolean {
    return this.pieces.some((piece) => {
      const { center, radius } = piece.geometry.boundingSphere!;
      return middle.copy(center).applyMatrix4(piece.matrix).distanceTo(point) < reach + radius;
    });
  }
}

const REST = new Matrix4();
const middle = new Vector3();

/** Does a piece of a scene move? */
export const isMoving = (piece: Object3D): boolean => groupOf(piece) >= 0;

const groupOf = ({ userData }: Object3D): number => (userData['group'] as number | undefined) ?? -1;

function put(object: Object3D, matrix: Matrix4): void {
  object.matrix.copy(matrix);
  object.matrixWorldNeedsUpdate = true;
}
