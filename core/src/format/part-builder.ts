import type { Vec3 } from '../document/index.ts';
import { withCreasedNormals } from './crease.ts';
import { checkPositions } from './mesh.ts';
import { cutPolygon } from './polygon.ts';
import type { LeftOut } from './left-out.ts';
import type { ScenePart } from './scene-model.ts';

/** One corner of a face as text formats give it: numbers of its position, texture place and normal; −1 for none. */
export interface Corner {
  position: number;
  uv: number;
  normal: number;
}

/** Everything that corners point into. 64-bit, in the file's own coordinates. */
export interface CornerData {
  /** Three numbers each. */
  positions: ArrayLike<number>;
  /** Two numbers each, first row at the top. */
  uvs: ArrayLike<number>;
  normals: ArrayLike<number>;
  /** Linear, three numbers each, by position; empty where there are none. */
  colors: ArrayLike<number>;
}

/** Collects the faces of one part: corners that are the same become one vertex, polygons become triangles. */
export class PartBuilder {
  private readonly index = new Map<string, number>();
  private readonly corners: Corner[] = [];
  private readonly indices: number[] = [];
  private complete = true;

  constructor(
    readonly name: string,
    readonly material: number,
    private readonly data: CornerData,
    private readonly leftOut: LeftOut,
  ) {}

  /** A polygon of three corners or more. */
  addFace(face: readonly Corner[]): void {
    this.leftOut.offered(1);
    const { positions } = this.data;
    const points = face.flatMap(({ position }) => [
      positions[3 * position]!,
      positions[3 * position + 1]!,
      positions[3 * position + 2]!,
    ]);
    const triangles = cutPolygon(points);
    if (triangles.length === 0) {
      this.leftOut.add('empty faces');
      return;
    }
    const vertices = face.map((corner) => this.vertex(corner));
    for (const corner of triangles) this.indices.push(vertices[corner]!);
  }

  private vertex(corner: Corner): number {
    const key = `${corner.position}/${corner.uv}/${corner.normal}`;
    let vertex = this.index.get(key);
    if (vertex === undefined) {
      this.index.set(key, (vertex = this.corners.push(corner) - 1));
      if (corner.normal < 0) this.complete = false;
    }
    return vertex;
  }

  /** @param origin is taken off every position. Null where no face had any area. */
  finish(origin: Vec3, fileName: string): ScenePart | null {
    if (this.indices.length === 0) return null;
    const { corners, data } = this;
    const pick = (size: number, from: ArrayLike<number>, at: (corner: Corner) => number) => {
      const out = new Float32Array(size * corners.length);
      corners.forEach((corner, i) => {
        const o = at(corner) * size;
        for (let k = 0; k < size; k += 1) out[size * i + k] = o < 0 ? 0 : from[o + k]!;
      });
      return out;
    };
    const positions = new Float32Array(3 * corners.length);
    corners.forEach(({ position }, i) => {
      for (let k = 0; k < 3; k += 1) positions[3 * i + k] = data.positions[3 * position + k]! - origin[k]!;
    });
    checkPositions(positions, this.name, fileName);
    const indices = Uint32Array.from(this.indices);
    const normals = this.complete ? pick(3, data.normals, ({ normal }) => normal) : null;
    const usable = normals !== null && normals.every(Number.isFinite) && normals.some((n) => n !== 0);
    const part = {
      name: this.name,
      material: this.material,
      positions,
      uvs: corners.some(({ uv }) => uv >= 0) ? pick(2, data.uvs, ({ uv }) => uv) : null,
      colors: data.colors.length > 0 ? pick(3, data.colors, ({ position }) => position) : null,
      light: null,
      indices,
    };
    return usable ? { ...part, normals } : withCreasedNormals(part);
  }
}
