import { Matrix3, Vector3, type Matrix4 } from 'three';
import { FormatError } from './errors.ts';
import type { ScenePart } from './scene-model.ts';

/** More triangles than this no browser can light and show. */
const MOST_TRIANGLES = 10_000_000;

/** Counts what a file comes to: copies of copies in a small file can be more than any memory holds. */
export class TriangleCount {
  private total = 0;

  constructor(private readonly fileName: string) {}

  /** Told of triangles before they are made. @throws FormatError when that makes too many */
  add(triangles: number): void {
    this.total += triangles;
    if (this.total > MOST_TRIANGLES)
      throw new FormatError(
        'too-large',
        this.fileName,
        `with all copies in their places it comes to more than ${MOST_TRIANGLES.toLocaleString('en')} triangles.`,
        'Simplify it, or bring it in parts.',
      );
  }
}

/** Coordinates beyond this are damage, not geometry, whatever the unit. */
export const FARTHEST = 1e8;

/** @throws FormatError naming the first vertex whose coordinates are no numbers or absurd */
export function checkPositions(positions: ArrayLike<number>, part: string, fileName: string): void {
  for (let k = 0; k < positions.length; k += 1)
    if (!(Math.abs(positions[k]!) < FARTHEST)) {
      const v = k - (k % 3);
      throw new FormatError(
        'damaged',
        fileName,
        `vertex ${v / 3} of “${part}” has the coordinates ${positions[v]}, ${positions[v + 1]}, ${positions[v + 2]}.`,
        'Remove that part or export the model again.',
      );
    }
}

/** @throws FormatError when a triangle names a vertex that is not there */
export function checkIndices(indices: ArrayLike<number>, count: number, part: string, fileName: string): void {
  for (let i = 0; i < indices.length; i += 1)
    if (!(indices[i]! < count))
      throw new FormatError(
        'damaged',
        fileName,
        `a triangle of “${part}” names vertex ${indices[i]}, and there are ${count}.`,
        'Export the model again.',
      );
}

/** A part with some of its vertices once more, after its own, on arrays of its own. Its triangles stay. */
export function withCopies(part: ScenePart, vertices: readonly number[]): ScenePart {
  const grown = (values: Float32Array, width: number) => {
    const out = new Float32Array(values.length + vertices.length * width);
    out.set(values);
    vertices.forEach((v, i) => out.set(values.subarray(v * width, (v + 1) * width), values.length + i * width));
    return out;
  };
  return {
    ...part,
    positions: grown(part.positions, 3),
    normals: grown(part.normals, 3),
    uvs: part.uvs && grown(part.uvs, 2),
    ...(part.colors ? { colors: grown(part.colors, 3) } : {}),
  };
}

/** Puts positions and normals through a matrix; a mirroring one turns the triangles back, so that outside stays outside. */
export function transformPart(part: ScenePart, matrix: Matrix4): void {
  const toNormal = new Matrix3().getNormalMatrix(matrix);
  const point = new Vector3();
  const { positions, normals, indices } = part;
  for (let k = 0; k < positions.length; k += 3) {
    point.fromArray(positions, k).applyMatrix4(matrix).toArray(positions, k);
    point.fromArray(normals, k).applyMatrix3(toNormal).normalize().toArray(normals, k);
  }
  if (matrix.determinant() < 0)
    for (let k = 0; k < indices.length; k += 3) [indices[k + 1], indices[k + 2]] = [indices[k + 2]!, indices[k + 1]!];
}
