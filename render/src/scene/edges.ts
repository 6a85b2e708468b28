import type { ScenePart } from '@eskovan/core/format';
import { cornerNormal, samePlace } from '@eskovan/core/geometry';

/** Edges between faces that turn less than this are no edges of the shape, degrees. */
const CREASE = 24;
/** Points nearer than this are the same point, metres. */
const WELD = 0.002;

type Shape = Pick<ScenePart, 'positions' | 'indices'>;

/** Pieces of one thing as one shape: where only the material changes there is no edge. */
export function joinShapes(shapes: readonly Shape[]): Shape {
  const [first, ...more] = shapes;
  if (first && more.length === 0) return first;
  const positions = new Float32Array(shapes.reduce((sum, shape) => sum + shape.positions.length, 0));
  const indices = new Uint32Array(shapes.reduce((sum, shape) => sum + shape.indices.length, 0));
  let vertex = 0;
  let index = 0;
  for (const shape of shapes) {
    positions.set(shape.positions, 3 * vertex);
    for (const v of shape.indices) indices[index++] = v + vertex;
    vertex += shape.positions.length / 3;
  }
  return { positions, indices };
}

/**
 * The edges that a drawing of a shape would show: where faces turn sharply, and where they end.
 * @returns six numbers a line: from, to. Metres
 */
export function featureEdges({ positions: p, indices }: Shape): Float32Array {
  const ids = samePlace(p, WELD);
  const crease = Math.cos((CREASE * Math.PI) / 180);
  /** By edge: where its first face's normal is, or −1 once it is known to be an edge or none. */
  const first = new Map<number, number>();
  const normals: number[] = [];
  const drawn = new Set<number>();
  const faces = new Set<string>();
  const count = p.length / 3;
  for (let t = 0; t < indices.length; t += 3) {
    const a = indices[t]!;
    const b = indices[t + 1]!;
    const c = indices[t + 2]!;
    const n = normalOf(p, a, b, c);
    // The back of a sheet, or a face that is there twice, adds no edge and takes none away.
    const corners = [ids[a]!, ids[b]!, ids[c]!].sort((one, other) => one - other).join();
    if (!n || faces.has(corners)) continue;
    faces.add(corners);
    normals.push(...n);
    const face = normals.length / 3 - 1;
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const [i, j] = [ids[from]!, ids[to]!];
      if (i === j) continue;
      const key = Math.min(i, j) * count + Math.max(i, j);
      const other = first.get(key);
      if (other === undefined) {
        first.set(key, face);
        drawn.add(key);
        continue;
      }
      const dot = n[0] * normals[3 * other]! + n[1] * normals[3 * other + 1]! + n[2] * normals[3 * other + 2]!;
      // Two pieces that touch in one plane make no line, whichever way they face.
      if (Math.abs(dot) > crease) drawn.delete(key);
      else drawn.add(key);
    }
  }
  const out = new Float32Array(drawn.size * 6);
  let at = 0;
  for (const key of drawn)
    for (const v of [Math.floor(key / count), key % count]) {
      out.set(p.subarray(3 * v, 3 * v + 3), at);
      at += 3;
    }
  return out;
}

function normalOf(p: Float32Array, a: number, b: number, c: number): [number, number, number] | null {
  cornerNormal(p, 3 * a, 3 * b, 3 * c, normal);
  const [x, y, z] = normal as unknown as [number, number, number];
  const length = Math.hypot(x, y, z);
  return length < 1e-12 ? null : [x / length, y / length, z / length];
}
const normal = new Float64Array(3);
