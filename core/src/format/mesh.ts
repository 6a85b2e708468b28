import { Matrix3, Vector3, type BufferGeometry, type Matrix4 } from 'three';
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

/** Area-weighted vertex normals for files that bring none. */
export function faceNormals(positions: Float32Array, indices: Uint32Array): Float32Array {
  const normals = new Float32Array(positions.length);
  const [a, b, c] = [new Vector3(), new Vector3(), new Vector3()];
  for (let k = 0; k < indices.length; k += 3) {
    const [i, j, l] = [indices[k]! * 3, indices[k + 1]! * 3, indices[k + 2]! * 3];
    a.fromArray(positions, i);
    b.fromArray(positions, j).sub(a);
    c.fromArray(positions, l).sub(a);
    b.cross(c);
    for (const vertex of [i, j, l]) {
      normals[vertex]! += b.x;
      normals[vertex + 1]! += b.y;
      normals[vertex + 2]! += b.z;
    }
  }
  for (let k = 0; k < normals.length; k += 3) a.fromArray(normals, k).normalize().toArray(normals, k);
  return normals;
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

/** A part from a geometry that a general-purpose loader made. `group` picks a stretch of its triangles. */
export function partFromGeometry(
  geometry: BufferGeometry,
  name: string,
  material: number,
  fileName: string,
  group?: { start: number; count: number },
): ScenePart | null {
  const position = geometry.getAttribute('position');
  if (!position) return null;
  const all = geometry.index
    ? Uint32Array.from(geometry.index.array)
    : Uint32Array.from({ length: position.count }, (_, i) => i);
  const stretch = group ? all.subarray(group.start, group.start + group.count) : all;
  const indices = stretch.slice(0, stretch.length - (stretch.length % 3));
  if (indices.length === 0) return null;
  checkIndices(indices, position.count, name, fileName);
  // Only the vertices that these triangles use.
  const index = new Int32Array(position.count).fill(-1);
  let count = 0;
  for (let i = 0; i < indices.length; i += 1) {
    const v = indices[i]!;
    if (index[v]! < 0) index[v] = count++;
    indices[i] = index[v]!;
  }
  const pick = (attribute: string, size: number): Float32Array | null => {
    const from = geometry.getAttribute(attribute);
    if (!from || from.itemSize < size) return null;
    const out = new Float32Array(count * size);
    for (let v = 0; v < index.length; v += 1)
      if (index[v]! >= 0) for (let k = 0; k < size; k += 1) out[index[v]! * size + k] = from.getComponent(v, k);
    return out;
  };
  const positions = pick('position', 3)!;
  checkPositions(positions, name, fileName);
  const normals = pick('normal', 3);
  const usable = normals !== null && normals.some((n) => n !== 0) && normals.every(Number.isFinite);
  return {
    name,
    material,
    positions,
    normals: usable ? normals : faceNormals(positions, indices),
    uvs: pick('uv', 2),
    colors: pick('color', 3),
    light: null,
    indices,
  };
}
