import { seesThrough, sheetFaces, withCopies, type SceneModel, type ScenePart } from '../../format/index.ts';
import { samePlace } from '../../geometry/index.ts';
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
  const places = samePlace(part.positions, WELD);
  /** Corners from the first in order round: what faces the other way has them the other way round. */
  const keyOf = (face: number, order: readonly [number, number, number]) => {
    const corners = order.map((k) => places[part.indices[3 * face + k]!]!);
    const first = corners.indexOf(Math.min(...corners));
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
  const grown = withCopies(part, copies);
  for (let k = 3 * count; k < grown.normals.length; k += 1) grown.normals[k] = -grown.normals[k]!;
  return { ...grown, indices };
}
