import type { SiteMotion } from '@eskovan/core/action';
import { Matrix4, Vector3, type Group, type Mesh, type Object3D } from 'three';

/** The pieces of a scene that move, and where they are just now. */
export class MovingMeshes {
  private readonly pieces: readonly Mesh[];
  private readonly places: readonly Matrix4[];
  /** Where they were when they were looked at last; null while they have not been. */
  private seen: readonly Matrix4[] | null = null;

  constructor(
    scene: Group,
    private readonly motion: SiteMotion,
  ) {
    this.pieces = (scene.children as Mesh[]).filter(isMoving);
    this.places = motion.places();
    this.place(0);
  }

  /**
   * @param time seconds into the move
   * @param share of what fades, what is there to a larger part than this is drawn, and the rest is not; see `fadedPasses`
   */
  place(time: number, share = 0.5): void {
    this.motion.place(time, this.places);
    this.presences(time)?.forEach((part, group) => {
      if (part <= share) this.places[group]!.makeScale(0, 0, 0);
    });
    for (const piece of this.pieces) put(piece, this.places[groupOf(piece)]!);
  }

  /** How much of each group is there; null where nothing is there in part. */
  presences(time: number): number[] | null {
    return this.motion.presences(time);
  }

  /** Where a group is now. */
  placeOf(group: number): Matrix4 {
    return this.places[group] ?? REST;
  }

  /** Does something with what takes its light along where it rests: there it has its shade. */
  atRest(work: () => void): void {
    const held = this.pieces.filter(({ userData }) => userData['held'] === true);
    for (const piece of held) put(piece, REST);
    work();
    for (const piece of held) put(piece, this.places[groupOf(piece)]!);
  }

  /** What they are like now has been looked at. */
  remember(): void {
    this.seen = this.places.map((place) => place.clone());
  }

  /** Does any of them look otherwise from a point than when they were looked at last? @param angle so far apart, radians */
  haveMoved(eye: Vector3, angle: number): boolean {
    const { seen } = this;
    if (!seen) return true;
    return this.pieces.some((piece) => {
      const [before, now] = [seen[groupOf(piece)]!, this.places[groupOf(piece)]!];
      if (before.equals(now)) return false;
      const { center, radius } = piece.geometry.boundingSphere!;
      const away = Math.max(0, middle.copy(center).applyMatrix4(now).distanceTo(eye) - radius);
      return OUTWARDS.some(([x, y, z]) => {
        one.set(center.x + x * radius, center.y + y * radius, center.z + z * radius);
        return other.copy(one).applyMatrix4(before).distanceTo(one.applyMatrix4(now)) > angle * away;
      });
    });
  }

  /** Puts something else where a group is: −1 is where nothing moves. */
  follow(object: Object3D, group: number): void {
    put(object, this.placeOf(group));
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
const [middle, one, other] = [new Vector3(), new Vector3(), new Vector3()];
/** The ends of a ball, and its middle: what turns or grows moves some of them. */
const OUTWARDS = [
  [0, 0, 0],
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;

/** Does a piece of a scene move? */
export const isMoving = (piece: Object3D): boolean => groupOf(piece) >= 0;

const groupOf = ({ userData }: Object3D): number => (userData['group'] as number | undefined) ?? -1;

function put(object: Object3D, matrix: Matrix4): void {
  object.matrix.copy(matrix);
  object.matrixWorldNeedsUpdate = true;
}
