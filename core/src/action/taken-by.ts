import { Vector3, type Matrix4 } from 'three';
import type { Vec3 } from '../document/index.ts';

const vector = new Vector3();

/** Where a matrix takes a place. */
export const takenBy = (matrix: Matrix4, [x, y, z]: Readonly<Vec3>): Vec3 =>
  vector.set(x, y, z).applyMatrix4(matrix).toArray();
