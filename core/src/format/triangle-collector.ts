import type { Vec3 } from '../document/index.ts';
import { withCreasedNormals } from './crease.ts';
import type { LeftOut } from './left-out.ts';
import { checkPositions } from './mesh.ts';
import type { ScenePart } from './scene-model.ts';

/** Collects loose triangles of a part, for formats that know nothing but corners. */
export class TriangleCollector {
  private readonly positions: number[] = [];

  constructor(
    private readonly origin: Vec3,
    private readonly leftOut: LeftOut,
  ) {}

  /** Adds the triangle whose nine numbers begin at `at`, in the file's own 64-bit coordinates. */
  add(corners: ArrayLike<number>, at: number): void {
    this.leftOut.offered(1);
    const p = Array.from({ length: 9 }, (_, k) => corners[at + k]! - this.origin[k % 3]!);
    const [ux, uy, uz] = [p[3]! - p[0]!, p[4]! - p[1]!, p[5]! - p[2]!];
    const [vx, vy, vz] = [p[6]! - p[0]!, p[7]! - p[1]!, p[8]! - p[2]!];
    if (uy * vz - uz * vy === 0 && uz * vx - ux * vz === 0 && ux * vy - uy * vx === 0) this.leftOut.add('empty faces');
    else this.positions.push(...p);
  }

  /** Null where there was no triangle with any area. */
  finish(name: string, material: number, fileName: string): ScenePart | null {
    if (this.positions.length === 0) return null;
    const positions = Float32Array.from(this.positions);
    checkPositions(positions, name, fileName);
    const indices = Uint32Array.from({ length: positions.length / 3 }, (_, i) => i);
    return withCreasedNormals({ name, material, positions, uvs: null, light: null, indices });
  }
}
