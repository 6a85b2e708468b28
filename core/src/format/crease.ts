import { cornerNormal, samePlace } from '../geometry/index.ts';
import type { ScenePart } from './scene-model.ts';

/** Faces that meet at less than this are one smooth surface, degrees (common practice, no source). */
const CREASE = Math.cos((35 * Math.PI) / 180);
/** Normals nearer than this are the same (cosine). */
const SAME = 0.9999;

/**
 * Normals for a part that came without: smooth over what bends gently, sharp at edges. Vertices at edges are parted.
 * @returns the part with its own positions, normals, texture places, colours and indices
 */
export function withCreasedNormals(part: Omit<ScenePart, 'normals'>): ScenePart {
  const { positions, indices, uvs, colors } = part;
  const place = samePlace(positions);
  const faces = indices.length / 3;
  const raw = new Float32Array(3 * faces);
  const unit = new Float32Array(3 * faces);
  const n = new Float64Array(3);
  for (let f = 0; f < faces; f += 1) {
    cornerNormal(positions, 3 * indices[3 * f]!, 3 * indices[3 * f + 1]!, 3 * indices[3 * f + 2]!, n);
    const size = Math.hypot(n[0]!, n[1]!, n[2]!) || 1;
    for (let k = 0; k < 3; k += 1) {
      raw[3 * f + k] = n[k]!;
      unit[3 * f + k] = n[k]! / size;
    }
  }
  // The faces at each place: counted, then filled.
  const starts = new Uint32Array(positions.length / 3 + 1);
  for (let i = 0; i < indices.length; i += 1) starts[place[indices[i]!]! + 1]! += 1;
  for (let i = 1; i < starts.length; i += 1) starts[i]! += starts[i - 1]!;
  const next = starts.slice();
  const around = new Uint32Array(indices.length);
  for (let i = 0; i < indices.length; i += 1) around[next[place[indices[i]!]!]!++] = Math.floor(i / 3);

  const outIndices = new Uint32Array(indices.length);
  const from: number[] = [];
  const normals: number[] = [];
  /** The vertices made of each vertex of the part: first, and the next of the same one. */
  const first = new Int32Array(positions.length / 3).fill(-1);
  const following: number[] = [];
  for (let i = 0; i < indices.length; i += 1) {
    const v = indices[i]!;
    const f = Math.floor(i / 3);
    let [x, y, z] = [0, 0, 0];
    const at = place[v]!;
    for (let k = starts[at]!; k < starts[at + 1]!; k += 1) {
      const g = 3 * around[k]!;
      const dot = unit[3 * f]! * unit[g]! + unit[3 * f + 1]! * unit[g + 1]! + unit[3 * f + 2]! * unit[g + 2]!;
      if (dot < CREASE && g !== 3 * f) continue;
      x += raw[g]!;
      y += raw[g + 1]!;
      z += raw[g + 2]!;
    }
    const size = Math.hypot(x, y, z) || 1;
    [x, y, z] = [x / size, y / size, z / size];
    let found = first[v]!;
    while (found >= 0 && x * normals[3 * found]! + y * normals[3 * found + 1]! + z * normals[3 * found + 2]! < SAME)
      found = following[found]!;
    if (found < 0) {
      found = from.push(v) - 1;
      normals.push(x, y, z);
      following.push(first[v]!);
      first[v] = found;
    }
    outIndices[i] = found;
  }
  const pick = (values: Float32Array, width: number) => {
    const out = new Float32Array(from.length * width);
    from.forEach((v, i) => {
      for (let k = 0; k < width; k += 1) out[i * width + k] = values[v * width + k]!;
    });
    return out;
  };
  return {
    ...part,
    positions: pick(positions, 3),
    normals: Float32Array.from(normals),
    uvs: uvs && pick(uvs, 2),
    ...(colors ? { colors: pick(colors, 3) } : {}),
    indices: outIndices,
  };
}
