import { isLandscape, PLAIN_MATERIAL, type SceneMaterial, type SceneModel, type ScenePart } from '../format/index.ts';
import { boundsOf, smooth, smoothNoise } from '../geometry/index.ts';
import { groundTile, TILE_MEAN, TILE_METRES } from './ground-tile.ts';

type Rgb = readonly [number, number, number];

/** What land is covered by that nobody has given a colour, linear: grown, dry, and bare where it is steep. By eye, no source. */
const GRASS: Rgb = [0.17, 0.215, 0.085];
const DRY: Rgb = [0.33, 0.295, 0.155];
const ROCK: Rgb = [0.29, 0.265, 0.235];
/** Cosines of the slopes between which it grows bare: 24° and 42°. */
const [BARE_FROM, BARE_TO] = [0.914, 0.743];
/** How large patches are, metres, and how much each size of them counts. */
const PATCHES = [
  [190, 0.5],
  [52, 0.3],
  [17, 0.2],
] as const;
/** Land rises and falls by more than this part of its width, and is made of more triangles: a plate is none. */
const LEAST_RELIEF = 0.004;
const FEWEST_TRIANGLES = 100;

type Looks = Pick<SceneModel, 'parts' | 'materials' | 'textures'>;

/**
 * Ground that came without a colour is given one, vertex by vertex, and grain for who stands on it: a landscape of one tone
 * reads as a sheet of paper. What a file or a person says of its look is left as it is.
 */
export function withLandCover<M extends Looks>(model: M): M {
  const { materials, textures } = model;
  const covered = [...materials];
  const own = new Map<number, number>();
  const grown = (material: number): number => {
    if (!own.has(material)) own.set(material, covered.push({ ...materials[material]!, texture: textures.length }) - 1);
    return own.get(material)!;
  };
  const parts = model.parts.map((part) => {
    const material = materials[part.material]!;
    if (!isBareLand(part, material)) return part;
    return { ...part, material: grown(part.material), colors: landCover(part, material.color), uvs: tiled(part) };
  });
  return own.size === 0 ? model : { ...model, parts, materials: covered, textures: [...textures, groundTile()] };
}

/** Where the tile lies on land: level, from above. */
function tiled({ positions: p }: ScenePart): Float32Array {
  const uvs = new Float32Array((2 * p.length) / 3);
  for (let v = 0; v < uvs.length / 2; v += 1) uvs.set([p[3 * v]! / TILE_METRES, p[3 * v + 2]! / TILE_METRES], 2 * v);
  return uvs;
}

/** Is a part land that nobody has given a look? A grid of heights is; of others the shape tells. */
function isBareLand(part: ScenePart, { texture, color, unlit }: SceneMaterial): boolean {
  if (texture !== null || part.colors || unlit) return false;
  if (part.role === 'terrain') return true;
  const plain = color.every((value, k) => value === PLAIN_MATERIAL.color[k]);
  if (!plain || part.indices.length < 3 * FEWEST_TRIANGLES || !isLandscape(part)) return false;
  const { min, max } = boundsOf(part.positions);
  return max[1] - min[1] > LEAST_RELIEF * Math.max(max[0] - min[0], max[2] - min[2]);
}

/** Colours that make of a material what grows there. @param base of the material, linear */
function landCover({ positions: p, normals }: ScenePart, base: Rgb): Float32Array {
  const colors = new Float32Array(p.length);
  for (let o = 0; o < p.length; o += 3) {
    let dry = 0;
    for (const [size, counts] of PATCHES) dry += counts * smoothNoise(p[o]! / size, p[o + 2]! / size);
    const part = smooth(0.3, 0.7, dry);
    const bare = smooth(BARE_FROM, BARE_TO, Math.abs(normals[o + 1]!));
    for (let k = 0; k < 3; k += 1) {
      const grown = GRASS[k]! + (DRY[k]! - GRASS[k]!) * part;
      colors[o + k] = (grown + (ROCK[k]! - grown) * bare) / TILE_MEAN / Math.max(0.01, base[k]!);
    }
  }
  return colors;
}
