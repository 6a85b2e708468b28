import { Vector3, type Matrix4 } from 'three';
import type { Vec3 } from '../document/index.ts';

/** A model whose middle is farther from zero than this many of its own sizes loses digits as 32-bit floats. */
const FAR = 16;

/**
 * What is to be taken off a file's coordinates before they become 32-bit floats: nothing where the model is near its
 * zero, else a round place near its middle. In the file's own unit and axes.
 * @param min,max extent of everything in the file, 64-bit
 */
export function originFor(min: ArrayLike<number>, max: ArrayLike<number>): Vec3 {
  const axes = [0, 1, 2] as const;
  const size = Math.max(...axes.map((k) => max[k]! - min[k]!), 0);
  const middle = axes.map((k) => (min[k]! + max[k]!) / 2) as Vec3;
  if (!middle.every(Number.isFinite) || Math.max(...middle.map(Math.abs)) <= FAR * size) return [0, 0, 0];
  const grid = 10 ** Math.floor(Math.log10(size || 1));
  // Dividing by whole numbers keeps decimal places as they are typed.
  return middle.map((value) =>
    grid >= 1 ? Math.round(value / grid) * grid : Math.round(value * (1 / grid)) / (1 / grid),
  ) as Vec3;
}

/** Extent of points that come one by one, 64-bit. */
export class Extent {
  readonly min: Vec3 = [Infinity, Infinity, Infinity];
  readonly max: Vec3 = [-Infinity, -Infinity, -Infinity];

  add(x: number, y: number, z: number): void {
    const { min, max } = this;
    if (x < min[0]) min[0] = x;
    if (y < min[1]) min[1] = y;
    if (z < min[2]) min[2] = z;
    if (x > max[0]) max[0] = x;
    if (y > max[1]) max[1] = y;
    if (z > max[2]) max[2] = z;
  }

  /** Grows by a box that a matrix puts in its place: all its corners. */
  addBox(min: ArrayLike<number>, max: ArrayLike<number>, matrix: Matrix4): void {
    const point = new Vector3();
    for (let corner = 0; corner < 8; corner += 1) {
      point.set((corner & 1 ? max : min)[0]!, (corner & 2 ? max : min)[1]!, (corner & 4 ? max : min)[2]!);
      point.applyMatrix4(matrix);
      this.add(point.x, point.y, point.z);
    }
  }

  origin(): Vec3 {
    return originFor(this.min, this.max);
  }
}
