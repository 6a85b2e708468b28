import { isGlass, type SceneMaterial, type ScenePart } from '@eskovan/core/format';
import { planWidth } from '@eskovan/core/geometry';
import type { Daylight } from '@eskovan/core/survey';
import { DataUtils } from 'three';
import { FinishData } from './finish-data.ts';
import { GLOW_SHOWN } from './glow.ts';
import { floats, halves, integers, type Growing } from './growing.ts';
import { GrowingShares } from './lamp-shares.ts';
import { mirrorPart } from './metal.ts';
import { GrowingRelight, type Reflecting } from './relight-data.ts';
import { sheen } from './sheen.ts';
import { surfaceSizes } from './surface-sizes.ts';

/** Side of the cubes that heavy geometry is thinned by, and what moves is lit by: about a room. */
const CHUNK = 8;
/** Parts wider than this (a landscape) are cut into fewer, larger cells, metres. */
const WIDE = 60;
const WIDE_CHUNK = 90;
/** Floors and walls stand at round numbers, where no cube may end: the part of a side that the cubes are moved by. */
const ASIDE = 0.37;

/**
 * Detail by the size of its surfaces (side of a square of their area): up to `size` metres it is left out of moving
 * pictures beyond `reach` metres, where it would be a few pixels. Resting and finished pictures have all of it.
 */
const DETAIL = [
  { size: 0.1, reach: 5 },
  { size: 0.25, reach: 12 },
  { size: 0.6, reach: 24 },
] as const;

const REACHES = [...DETAIL.map(({ reach }) => reach), Infinity];

/** Everything that stands with one look, or one cell of what moves together, collected before it becomes one mesh. */
export interface Chunk {
  look: string;
  /** Its triangles by cell and detail; of what moves there is one. */
  cells: Map<string, Cell>;
  positions: Growing<Float32Array>;
  /** Four half floats a vertex: radiance, and one. */
  colors: Growing<Uint16Array>;
  uvs: Growing<Float32Array>;
  /** For finished pictures, where the sun's shadow is drawn anew; see `finish.ts`. Null in the working view. */
  finish: FinishData | null;
  /** What of its colours lamps give that can be dimmed; null where none can. */
  shares: GrowingShares | null;
  /** What lights it anew where it moves to; null where it stands still or takes its light along. */
  relight: GrowingRelight | null;
  /** The group of parts that it moves with; −1 where it stands still. */
  group: number;
  /** Its light goes with it. */
  held: boolean;
}

/** Triangles of a chunk that lie in one cell, with one detail. */
export interface Cell {
  indices: Growing<Uint32Array>;
  /** Distance beyond which moving pictures leave it out, metres. */
  reach: number;
}

/**
 * A look names everything that needs a material of its own.
 * @param dimmer that the part obeys; −1 for none
 * @param held its light goes with it
 * @param layer how many others it lies on in one plane
 */
export function lookOf(material: SceneMaterial, dimmer = -1, held = false, layer = 0): string {
  return [
    material.opacity < 0.99 ? `glass:${Math.round(material.opacity * 100)}` : 'solid',
    material.doubleSided ? 'double' : 'single',
    material.texture === null && material.maskTexture === undefined
      ? 'plain'
      : `texture:${material.texture ?? ''},${material.maskTexture ?? ''}`,
    material.cutOut === undefined ? '' : `cut:${material.cutOut}`,
    material.emissiveTexture === undefined
      ? ''
      : `glow:${material.emissiveTexture},${material.emissive.map((value) => value.toFixed(3)).join()}`,
    // Only a picture that shines is the material's own: what else glows is in the vertices.
    material.emissiveTexture === undefined || dimmer < 0 ? '' : `dimmer:${dimmer}`,
    held ? 'held' : '',
    layer > 0 ? `layer:${layer}` : '',
  ].join('|');
}

/** What is drawn together where it stands. What is lit and what is not yet have different things in their vertices. */
export const standingKey = ({ light }: ScenePart, look: string): string => (light ? look : `${look}|unlit`);

/** Does a look need places of pictures? */
export const usesUvs = (look: string): boolean => look.includes('texture:') || look.includes('glow:');

/** Class of detail of something of a size in metres, and the distance to which moving pictures show it. */
export function detailOf(size: number): { detail: number; reach: number } {
  const detail = detailClass(size);
  return { detail, reach: REACHES[detail]! };
}

/** 0 for the finest detail, 3 for what is always shown. */
function detailClass(size: number): number {
  let detail = 0;
  while (detail < DETAIL.length && size >= DETAIL[detail]!.size) detail += 1;
  return detail;
}

/** Side of the cells that a part is cut into, metres; a heavy site asks for larger ones, or it has too many. */
export const cellSide = (p: Float32Array, least = CHUNK): number => (planWidth(p) > WIDE ? WIDE_CHUNK : least);

export interface ChunkOptions {
  day: Daylight;
  /** Draws paper, not light. */
  flat: boolean;
  /** Keeps what finished pictures need. */
  finish: boolean;
  /** Side of the cells, metres. */
  cell: number;
  /** The group that the part moves with; −1 where it stands still. */
  group: number;
  /** Its light goes with it: it is not lit where it is. */
  held: boolean;
  /** How many groups of lamps can be dimmed, and which of them the part obeys; −1 for none. */
  dimmers: number;
  dimmer: number;
  /** Vertices that stand with a look, at most, where that is known: room is made for them at once. */
  room?: ReadonlyMap<string, number>;
}

/** Puts a part's triangles into chunks, with the light of the day in their colours. */
export function addPart(
  part: ScenePart,
  material: SceneMaterial,
  { day, flat, finish, cell: cellOf, group, held, dimmers, dimmer, room }: ChunkOptions,
  chunks: Map<string, Chunk>,
): void {
  const look = lookOf(material, dimmer, held, part.layer);
  const standing = standingKey(part, look);
  const { positions: p, indices } = part;
  const side = cellSide(p, cellOf);
  const radiance = radianceOf(part, material, day, flat);
  const colors = colorsOf(radiance);
  const dims = dimmers > 0 && !flat && (dimmer >= 0 || part.light?.shares?.some(Boolean));
  const pictured = usesUvs(look);
  const uvs = pictured ? part.uvs : null;
  // Which vertex of the chunk at hand a vertex of the part has become; −1 where it has not been met yet.
  const index = new Int32Array(p.length / 3).fill(-1);
  const moves = group >= 0;
  for (const [cell, triangles] of byCell(part, side, moves)) {
    const cellKey = `${side}|${cell}`;
    const key = moves ? `${standing}|${cellKey}|${group}` : standing;
    let chunk = chunks.get(key);
    if (!chunk) {
      const vertices = moves ? undefined : room?.get(standing);
      chunk = {
        look,
        cells: new Map(),
        positions: floats(vertices && 3 * vertices),
        colors: halves(vertices && 4 * vertices),
        uvs: floats(pictured ? vertices && 2 * vertices : 0),
        finish: finish && part.light ? new FinishData(dimmers, vertices) : null,
        shares: dimmers > 0 && !flat ? new GrowingShares(dimmers) : null,
        relight: group >= 0 && !held && !flat && part.light ? new GrowingRelight() : null,
        group,
        held,
      };
      chunks.set(key, chunk);
    }
    let into = chunk.cells.get(cellKey);
    if (!into) chunk.cells.set(cellKey, (into = { indices: integers(), reach: REACHES[cell % 4]! }));
    const first = chunk.positions.length / 3;
    let to = into.indices.take(triangles.length * 3);
    const fresh: number[] = [];
    for (const t of triangles)
      for (let corner = 0; corner < 3; corner += 1) {
        const v = indices[t + corner]!;
        if (index[v]! < 0) index[v] = first + fresh.push(v) - 1;
        into.indices.array[to++] = index[v]!;
      }
    gather(p, fresh, 3, chunk.positions);
    gather(colors, fresh, 4, chunk.colors);
    if (pictured) gather(uvs, fresh, 2, chunk.uvs);
    if (chunk.finish) for (const v of fresh) chunk.finish.add(part, material, v, dimmer);
    if (chunk.relight) for (const v of fresh) chunk.relight.add(part, radiance.reflecting, v);
    if (dims && chunk.shares)
      fresh.forEach((v, i) =>
        chunk.shares!.add(
          first + i,
          (k) => radiance.whole(v, k),
          (of, k) => radiance.share(v, k, of, dimmer),
        ),
      );
    // The next cell of what moves is another chunk.
    if (moves)
      for (const t of triangles) for (let corner = 0; corner < 3; corner += 1) index[indices[t + corner]!] = -1;
  }
}

/** Copies the values of some vertices to the end of a list; zeros where there are none. */
function gather<T extends Float32Array | Uint16Array>(
  from: T | null,
  vertices: readonly number[],
  width: number,
  to: Growing<T>,
): void {
  let at = to.take(vertices.length * width);
  const { array } = to;
  for (const v of vertices) for (let k = 0; k < width; k += 1) array[at++] = from ? from[v * width + k]! : 0;
}

/**
 * A part's triangles (offsets into its indices) by cube and detail, the lowest two bits of their number. What moves is cut
 * in plan only: each piece of it is lit anew by itself.
 */
function byCell({ positions: p, indices }: ScenePart, side: number, moves: boolean): Map<number, number[]> {
  const cells = new Map<number, number[]>();
  const sizes = surfaceSizes(p, indices);
  for (let t = 0; t < indices.length; t += 3) {
    const a = 3 * indices[t]!;
    const b = 3 * indices[t + 1]!;
    const c = 3 * indices[t + 2]!;
    const place = (k: number) => Math.floor((p[a + k]! + p[b + k]! + p[c + k]!) / (3 * side) + (moves ? 0 : ASIDE));
    const cube = ((place(0) + 32_768) * 65_536 + place(2) + 32_768) * 4096 + (moves ? 0 : place(1)) + 2048;
    const cell = cube * 4 + detailClass(sizes[t / 3]!);
    const list = cells.get(cell);
    if (list) list.push(t);
    else cells.set(cell, [t]);
  }
  return cells;
}

/** Cells wide that a site of very many triangles is cut into, at most: each cell is a few calls to draw. */
const MOST_CELLS = 14;
const MANY_TRIANGLES = 200_000;

/** Side of the cells for a whole site, metres. */
export function cellFor(parts: readonly ScenePart[], triangles: number): number {
  if (triangles < MANY_TRIANGLES) return CHUNK;
  return Math.max(CHUNK, ...parts.map(({ positions }) => planWidth(positions) / MOST_CELLS));
}

/** What a vertex of a part sends out, and what of that comes from a dimmer's lamps. */
interface Radiance {
  vertices: number;
  whole: (v: number, k: number) => number;
  share: (v: number, k: number, of: number, own: number) => number;
  reflecting: Reflecting;
}

function radianceOf(part: ScenePart, material: SceneMaterial, day: Daylight, flat: boolean): Radiance {
  // Clear glass sends back little of the light that falls on it; what is milky, most.
  const shine = isGlass(material) ? Math.min(1, GLASS_SHINE + material.opacity) : 1;
  const metalness = mirrorPart(material);
  const { light, normals } = part;
  const base = (v: number, k: number) => shine * material.color[k]! * (part.colors?.[3 * v + k] ?? 1);
  // What shines by a picture is added where the picture is drawn.
  const glow = material.emissive.map((value) => (material.emissiveTexture === undefined ? GLOW_SHOWN * value : 0));
  const reflecting: Reflecting = {
    working: (v, k) => base(v, k) * sheen(metalness, normals, v),
    finished: (v, k) => material.color[k]! * (part.colors?.[3 * v + k] ?? 1) * (1 - metalness),
    glow: (k) => glow[k]!,
  };
  return {
    reflecting,
    vertices: part.positions.length / 3,
    whole: (v, k) => {
      const falls = light
        ? light.ambient[3 * v + k]! + day.sun[k]! * light.sun[v]!
        : material.unlit
          ? 1
          : plainLight(normals, v);
      // Paper keeps a breath of shade, so that walls and floors stay apart.
      const shown = flat ? 0.82 + 0.18 * Math.min(1.2, falls) : falls * sheen(metalness, normals, v);
      return Math.min(MOST_RADIANCE, base(v, k) * shown + glow[k]!);
    },
    share: (v, k, of, own) =>
      base(v, k) * (light?.shares?.[of]?.[3 * v + k] ?? 0) * sheen(metalness, normals, v) + (of === own ? glow[k]! : 0),
  };
}

/** Four half floats a vertex. */
function colorsOf({ vertices, whole }: Radiance): Uint16Array {
  const out = new Uint16Array(4 * vertices);
  for (let v = 0; v < vertices; v += 1) {
    for (let k = 0; k < 3; k += 1) out[4 * v + k] = DataUtils.toHalfFloat(whole(v, k));
    out[4 * v + 3] = ONE;
  }
  return out;
}

/** Of the light on clear glass, the part that is seen. */
const GLASS_SHINE = 0.08;

/** What a half float holds with room to spare. */
const MOST_RADIANCE = 1000;
const ONE = DataUtils.toHalfFloat(1);

/** Light for a model whose own has not been computed yet: brighter above, a side to the sun. */
function plainLight(normals: Float32Array, v: number): number {
  const x = normals[3 * v]!;
  const y = normals[3 * v + 1]!;
  const z = normals[3 * v + 2]!;
  return 0.62 + 0.22 * y + 0.2 * Math.max(0, -0.53 * x + 0.559 * y + 0.638 * z);
}
