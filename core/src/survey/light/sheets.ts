import { seesThrough, sheetFaces, type SceneModel, type ScenePart } from '../../format/index.ts';
import { isLandscape } from '../landscape.ts';

/** Corners nearer than this are one, metres. */
const WELD = 0.001;

/**
 * A model whose sheets have two sides: a wall that was drawn as a single face is lit by the sun outside and by the room
 * inside. Backs are faces of their own, so nothing of such a part is drawn from behind any more. Closed bodies, ground,
 * glass and what is cut out of pictures stay as they are.
 */
export function withBacks(model: SceneModel): SceneModel {
  const materials = [...model.materials];
  /** The material that shows its front only, by the one that shows both sides. */
  const fronts = new Map<number, number>();
  const parts = model.parts.map((part): ScenePart => {
    const material = model.materials[part.material]!;
    if (!material.doubleSided || seesThrough(material) || isLandscape(part)) return part;
    const backs = facesWithoutBack(part);
    if (backs.length === 0) return part;
    let front = fronts.get(part.material);
    if (front === undefined) {
      front = materials.push({ ...material, doubleSided: false }) - 1;
      fronts.set(part.material, front);
    }
    return { ...withFaces(part, backs), material: front };
  });
  return fronts.size === 0 ? model : { ...model, materials, parts };
}

/** Faces of open sheets that no other face of the part lies behind. */
function facesWithoutBack(part: ScenePart): number[] {
  const open = sheetFaces(part);
  if (!open.includes(1)) return [];
  const { positions: p, indices } = part;
  const corner = (face: number, k: number) => {
    const o = 3 * indices[3 * face + k]!;
    return [0, 1, 2].map((axis) => Math.round(p[o + axis]! / WELD)).join(',');
  };
  /** Corners from the first in order round: what faces the other way has them the other way round. */
  const keyOf = (face: number, order: readonly [number, number, number]) => {
    const corners = order.map((k) => corner(face, k));
    const first = corners.indexOf([...corners].sort()[0]!);
    return [0, 1, 2].map((k) => corners[(first + k) % 3]!).join(' ');
  };
  const known = new Set<string>();
  for (let face = 0; face < open.length; face += 1) if (open[face]) known.add(keyOf(face, [0, 1, 2]));
  const out: number[] = [];
  for (let face = 0; face < open.length; face += 1)
    if (open[face] && !known.has(keyOf(face, [0, 2, 1]))) out.push(face);
  return out;
}

/** A part with some of its faces once more, facing the other way. */
function withFaces(part: ScenePart, faces: readonly number[]): ScenePart {
  const count = part.positions.length / 3;
  const own = new Int32Array(count).fill(-1);
  const copies: number[] = [];
  const indices = new Uint32Array(part.indices.length + 3 * faces.length);
  indices.set(part.indices);
  faces.forEach((face, i) => {
    [0, 2, 1].forEach((k, n) => {
      const v = part.indices[3 * face + k]!;
      if (own[v]! < 0) own[v] = count + copies.push(v) - 1;
      indices[part.indices.length + 3 * i + n] = own[v]!;
    });
  });
  const grown = (values: Float32Array, width: number, sign = 1) => {
    const out = new Float32Array(values.length + copies.length * width);
    out.set(values);
    copies.forEach((v, i) => {
      for (let k = 0; k < width; k += 1) out[values.length + i * width + k] = sign * values[v * width + k]!;
    });
    return out;
  };
  return {
    ...part,
    positions: grown(part.positions, 3),
    normals: grown(part.normals, 3, -1),
    uvs: part.uvs && grown(part.uvs, 2),
    ...(part.colors ? { colors: grown(part.colors, 3) } : {}),
    indices,
  };
}
