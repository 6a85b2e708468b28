import type { ScenePart } from './scene-model.ts';

/**
 * A part with the vertices that its triangles use, in their order: what is beside them, as where a height is missing or
 * where several parts of a file share one list, would count as a place of it.
 * @returns the part itself where all are used
 */
export function withUsedVertices(part: ScenePart): ScenePart {
  const count = part.positions.length / 3;
  const used = new Uint8Array(count);
  for (const v of part.indices) used[v] = 1;
  const size = used.reduce((sum, one) => sum + one, 0);
  if (size === count) return part;
  const next = new Uint32Array(count);
  let made = 0;
  for (let v = 0; v < count; v += 1) if (used[v]) [next[v], made] = [made, made + 1];
  const kept = (values: Float32Array, each: number): Float32Array => {
    const out = new Float32Array(each * size);
    for (let v = 0; v < count; v += 1)
      if (used[v]) for (let k = 0; k < each; k += 1) out[each * next[v]! + k] = values[each * v + k]!;
    return out;
  };
  return {
    ...part,
    positions: kept(part.positions, 3),
    normals: kept(part.normals, 3),
    uvs: part.uvs && kept(part.uvs, 2),
    ...(part.colors && { colors: kept(part.colors, 3) }),
    light: part.light && { ambient: kept(part.light.ambient, 3), sun: kept(part.light.sun, 1) },
    indices: part.indices.map((v) => next[v]!),
  };
}
