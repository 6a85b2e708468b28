import { Matrix4, Vector3 } from 'three';
import type { Placement, Vec3 } from '../document/index.ts';

/**
 * The coordinates that other programs know a site by: metres, z up, those of one of its files. Files with y up have
 * their −z where others have y.
 */
export class World {
  private readonly toProject: Matrix4;
  private readonly toWorld: Matrix4;

  /** @param placement how that file lies in the project; without one the project's own coordinates are set upright */
  constructor({ turn, position }: Pick<Placement, 'turn' | 'position'> = { turn: 0, position: [0, 0, 0] }) {
    this.toProject = new Matrix4()
      .makeTranslation(...position)
      .multiply(new Matrix4().makeRotationY(turn))
      .multiply(new Matrix4().makeRotationX(-Math.PI / 2));
    this.toWorld = this.toProject.clone().invert();
  }

  /** A place of the project as others know it. */
  place(point: Readonly<Vec3>): Vec3 {
    return new Vector3(...point).applyMatrix4(this.toWorld).toArray();
  }

  /** A direction of the project as others know it. */
  direction(vector: Readonly<Vec3>): Vec3 {
    return new Vector3(...vector).transformDirection(this.toWorld).toArray();
  }

  /** A place as others know it, in the project. */
  placeFrom(point: Readonly<Vec3>): Vec3 {
    return new Vector3(...point).applyMatrix4(this.toProject).toArray();
  }

  /** A direction as others know it, in the project. */
  directionFrom(vector: Readonly<Vec3>): Vec3 {
    return new Vector3(...vector).transformDirection(this.toProject).toArray();
  }
}
