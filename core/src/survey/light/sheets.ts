import {
  isLandscape,
  seesThrough,
  sheetFaces,
  withCopies,
  type SceneModel,
  type ScenePart,
} from '../../format/index.ts';
import { boundsOf, cornerNormal, diagonalOf, longestAxis, middle, samePlace } from '../../geometry/index.ts';

/** Corners nearer than this are one, metres. */
const WELD = 0.001;

/**
 * A model whose sheets have two sides: a wall that was drawn as a single face is lit by the sun outside and by the room
 * inside. Backs are faces of their own, so nothing of such a part is drawn from behind any more. Closed bodies, ground,
 * glass, what is unlit and what is cut out of pictures stay as they are.
 */
export function withBacks(model: SceneModel): SceneModel {
  const materials = [...model.materials];
  /** The material that shows its front only, by the one that shows both sides. */
  const fronts = new Map<number, number>();
  const parts = model.parts.map((part): ScenePart => {
    const material = model.materials[part.material]!;
    if (!material.doubleSided || material.unlit || seesThrough(material) || isLandscape(part)) return part;
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

/** Of the faces of a sheet at least so many have another one at their place that faces the other way. */
const MOSTLY = 0.5;
/** Or it has next to no volume, and no side that is larger than the other: of its area, and of that times its size. */
const NOTHING = 2e-5;

/**
 * Was a part given backs, or did it come with them? Bodies that touch have few faces back to back. Both sides of a sheet
 * may be cut into other triangles.
 */
export function isSheet({ positions: p, indices }: Pick<ScenePart, 'positions' | 'indices'>): boolean {
  if (indices.length === 0) return false;
  const { min, max } = boundsOf(p);
  const centre = middle({ min, max });
  /** Numbers a place, and which of two sides: of faces back to back both are known. */
  const known = new Map<number, number>();
  let [paired, area, volume] = [0, 0, 0];
  const facing = [0, 0, 0];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    cornerNormal(p, a, b, c, normal);
    let key = 0;
    for (let k = 0; k < 3; k += 1) {
      key = key * 1.618 + Math.round((p[a + k]! + p[b + k]! + p[c + k]!) * 1000);
      facing[k]! += normal[k]!;
      volume += (normal[k]! * (p[a + k]! - centre[k]!)) / 3;
    }
    area += Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    const side = sideOf(normal);
    if (known.get(key) === -side) paired += 2;
    known.set(key, side);
  }
  const size = diagonalOf({ min, max });
  const flat = Math.hypot(...facing) < NOTHING * area && Math.abs(volume) < NOTHING * area * size;
  return flat || paired >= (MOSTLY * indices.length) / 3;
}

/** 1 or −1: which way a normal points along its longest part. */
function sideOf(normal: Float64Array): number {
  return normal[longestAxis(normal)]! < 0 ? -1 : 1;
}
const normal = new Float64Array(3);

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
