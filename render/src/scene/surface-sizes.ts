import { cornerArea } from '@eskovan/core/geometry';

/**
 * How large the surface is that each triangle belongs to: what hangs together by its vertices, such as a wall that was cut
 * up for its light, is large however small its triangles are. Side of a square of its area, metres, for every triangle.
 */
export function surfaceSizes(positions: Float32Array, indices: Uint32Array): Float64Array {
  const root = Uint32Array.from({ length: positions.length / 3 }, (_, v) => v);
  const rootOf = (v: number): number => {
    while (root[v] !== v) v = root[v] = root[root[v]!]!;
    return v;
  };
  for (let t = 0; t < indices.length; t += 3) {
    const a = rootOf(indices[t]!);
    root[rootOf(indices[t + 1]!)] = a;
    root[rootOf(indices[t + 2]!)] = a;
  }
  const areas = new Float64Array(root.length);
  for (let t = 0; t < indices.length; t += 3)
    areas[rootOf(indices[t]!)]! += cornerArea(positions, 3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!);
  return Float64Array.from({ length: indices.length / 3 }, (_, i) => Math.sqrt(areas[rootOf(indices[3 * i]!)]!));
}
