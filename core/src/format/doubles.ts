import { shareOfFaces } from './left-out.ts';
import { countTriangles, type ReadModel, type ScenePart } from './scene-model.ts';

/** Larger models are taken as they come: looking through them would take as long as reading them. */
const MOST_TRIANGLES = 600_000;

/**
 * A model without the faces that lie exactly on another one and face the same way: drawn twice they flicker where
 * their materials differ, and are lit twice. The first stays. A face and its back are two.
 */
export function withoutDoubles(model: ReadModel): ReadModel {
  const total = countTriangles(model);
  if (total > MOST_TRIANGLES) return model;
  const known = new Map<number, [part: ScenePart, offset: number][]>();
  let gone = 0;
  const parts = model.parts.flatMap((part) => {
    // What moves may lie on another thing for a moment.
    if (part.joint !== undefined) return [part];
    const { positions, indices } = part;
    const bits = new Uint32Array(positions.buffer, positions.byteOffset, positions.length);
    const kept: number[] = [];
    for (let t = 0; t < indices.length; t += 3) {
      const key = placeHash(bits, indices[t]!) + placeHash(bits, indices[t + 1]!) + placeHash(bits, indices[t + 2]!);
      const same = known.get(key);
      if (same?.some(([other, o]) => isDouble(part, t, other, o))) {
        gone += 1;
        continue;
      }
      if (same) same.push([part, t]);
      else known.set(key, [[part, t]]);
      kept.push(t);
    }
    if (3 * kept.length === indices.length) return [part];
    if (kept.length === 0) return [];
    const left = new Uint32Array(3 * kept.length);
    kept.forEach((t, k) => left.set(indices.subarray(t, t + 3), 3 * k));
    return [{ ...part, indices: left }];
  });
  if (gone === 0) return model;
  const words = gone === 1 ? ['face lies', 'is'] : ['faces lie', 'are'];
  const note = `${gone.toLocaleString('en')} ${words[0]} exactly on others and ${words[1]} left out (${shareOfFaces(gone, total)}).`;
  return { ...model, parts, notes: [...model.notes, note] };
}

/** A number for the place of a vertex; those of a face are added, so that it does not matter where the face begins. */
function placeHash(bits: Uint32Array, v: number): number {
  let hash = 0x9e3779b9;
  for (let k = 0; k < 3; k += 1) {
    hash = Math.imul(hash ^ bits[3 * v + k]!, 0x85ebca6b);
    hash ^= hash >>> 13;
  }
  return hash >>> 0;
}

/** Do two faces have the same corners in the same order round? */
function isDouble(part: ScenePart, t: number, other: ScenePart, o: number): boolean {
  const same = (i: number, j: number) => {
    const [a, b] = [3 * part.indices[t + i]!, 3 * other.indices[o + j]!];
    return [0, 1, 2].every((k) => part.positions[a + k] === other.positions[b + k]);
  };
  return [0, 1, 2].some((turn) => [0, 1, 2].every((k) => same(k, (k + turn) % 3)));
}
