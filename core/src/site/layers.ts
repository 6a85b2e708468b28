import { countTriangles, type SceneMaterial, type SceneModel, type ScenePart } from '../format/index.ts';
import { boundsOf, cornerNormal, dot, isOpposite, joinBounds, longestAxis, middle } from '../geometry/index.ts';
import { facesOverlap } from './faces-overlap.ts';
import { extentOf, FaceGrid, widen, type Faces } from './face-grid.ts';

/** Larger sites are taken as they come: looking through them would take as long as measuring them. */
const MOST_TRIANGLES = 500_000;
/**
 * Faces nearer to each other than this are drawn as if they lay in one plane, metres: from some way off a depth buffer
 * cannot tell them apart.
 */
const NEAR = 0.0015;
/** What lies behind another face by more than this is meant to be behind it, metres; by less, it is a rounding. */
const ROUNDING = 0.0001;
/** So many pairs of faces of two parts are looked at; parts of which none has lain on another by then do not. */
const MOST_TRIES = 200_000;
/** More things than this are not told apart in one place; what is more lies as high as the last. */
export const MOST_LAYERS = 6;
/** Side of the cells that normals are sorted into, and how far they are off by rounding: so near to a cell is in it, too. */
const CELL = 1 / 100;
const OFF = 0.01;
/** Depth of the cells that planes of one direction are sorted into, metres. */
const DEPTH = 0.02;

/**
 * Which parts lie on others in one plane, as a carpet does on its floor or a line on its road: a depth buffer cannot
 * say which of them is in front, and where they differ the picture flickers. The smaller lies on the larger, unless it
 * is behind it by more than a rounding.
 * @returns for each part how many lie below it, 0 … {@link MOST_LAYERS}
 */
export function layersOf(model: Pick<SceneModel, 'parts' | 'materials'>): Uint8Array {
  const { parts } = model;
  const layers = new Uint8Array(parts.length);
  if (countTriangles(model) > MOST_TRIANGLES) return layers;
  const areas = new Float64Array(parts.length);
  const planes = [...byPlane(parts, areas)];
  const bySize = parts.map((_, i) => i).sort((one, two) => areas[two]! - areas[one]! || one - two);
  const rank = new Uint32Array(parts.length);
  bySize.forEach((part, i) => (rank[part] = i));
  const below = parts.map(() => new Set<number>());
  for (const [drop, faces] of planes) link(model, faces, drop, rank, below);
  for (const part of bySize)
    for (const other of below[part]!) layers[part] = Math.min(MOST_LAYERS, Math.max(layers[part]!, layers[other]! + 1));
  return layers;
}

/** The faces of all parts by plane, and the axis that each plane faces most; parts' areas are added up on the way. */
function byPlane(parts: readonly ScenePart[], areas: Float64Array): Iterable<[drop: number, Faces[]]> {
  const planes = new Map<number, [number, Faces[]]>();
  const bounds = joinBounds(parts.map(({ positions }) => boundsOf(positions)));
  // Planes are told by how far they are from the middle: rounding of their directions counts least there.
  const [mx, my, mz] = bounds ? middle(bounds) : [0, 0, 0];
  const n = new Float64Array(3);
  parts.forEach(({ positions: p, indices, joint }, part) => {
    for (let at = 0; at < indices.length; at += 3) {
      const corners = [3 * indices[at]!, 3 * indices[at + 1]!, 3 * indices[at + 2]!] as const;
      cornerNormal(p, ...corners, n);
      const twice = Math.hypot(n[0]!, n[1]!, n[2]!);
      areas[part]! += twice / 2;
      // What moves lies on another thing for a moment only.
      if (joint !== undefined || !(twice > 1e-10)) continue;
      const back = isOpposite(n);
      const scale = (back ? -1 : 1) / twice;
      const [a] = corners;
      const off = scale * (n[0]! * (p[a]! - mx) + n[1]! * (p[a + 1]! - my) + n[2]! * (p[a + 2]! - mz));
      for (const key of cellsOf(n, scale, off)) {
        let plane = planes.get(key);
        if (!plane) planes.set(key, (plane = [longestAxis(n), []]));
        let faces = plane[1].at(-1);
        if (faces?.part !== part)
          plane[1].push((faces = { part, at: [], backs: [], box: new Float64Array(6).fill(Infinity) }));
        faces.at.push(at);
        faces.backs.push(back);
        for (const corner of corners) widen(faces.box, p, corner);
      }
    }
  });
  return planes.values();
}

/** The cells of a plane: one, or all that it is near to. @param scale makes the normal a unit one @param off metres */
function cellsOf(n: Float64Array, scale: number, off: number): number[] {
  let first = 0;
  let others: number[] | null = null;
  for (let k = 0; k < 3; k += 1) {
    // Moved aside, so that no common normal lies where cells meet.
    const place = (n[k]! * scale) / CELL + 0.37 + 128;
    const [from, to] = [Math.floor(place - OFF), Math.floor(place + OFF)];
    if (from !== to || others) others = (others ?? [first]).flatMap((cell) => spread(cell, from, to));
    first = first * 256 + from;
  }
  const place = off / DEPTH + 0.37;
  const [from, to] = [Math.floor(place - NEAR / DEPTH), Math.floor(place + NEAR / DEPTH)];
  const cells = (others ?? [first]).map((cell) => cell * 2 ** 24 + from + 2 ** 23);
  return from === to ? cells : cells.flatMap((cell) => [cell, cell + 1]);
}

const spread = (cell: number, from: number, to: number): number[] =>
  from === to ? [cell * 256 + from] : [cell * 256 + from, cell * 256 + to];

/** Do two extents come nearer to each other than {@link NEAR}? */
const meet = (one: Float64Array, two: Float64Array): boolean => {
  for (let k = 0; k < 3; k += 1) if (one[k]! + two[k + 3]! > NEAR || two[k]! + one[k + 3]! > NEAR) return false;
  return true;
};

/** Looks through all faces of about one plane for parts that lie on each other. */
function link(
  { parts, materials }: Pick<SceneModel, 'parts' | 'materials'>,
  all: Faces[],
  drop: number,
  rank: Uint32Array,
  below: Set<number>[],
): void {
  // By where they begin along one axis of their plane: what begins behind the end of another needs no look.
  const along = drop === 0 ? 1 : 0;
  all.sort((one, two) => one.box[along]! - two.box[along]!);
  const open: Faces[] = [];
  for (const one of all) {
    let kept = 0;
    for (const two of open) {
      if (one.box[along]! + two.box[along + 3]! > NEAR) continue;
      open[kept++] = two;
      const [larger, smaller] = rank[one.part]! < rank[two.part]! ? [one, two] : [two, one];
      if (below[smaller.part]!.has(larger.part) || !meet(one.box, two.box)) continue;
      const [a, b] = [parts[smaller.part]!, parts[larger.part]!];
      if (a.material === b.material && looksAlike(a, b, materials[a.material]!)) continue;
      const anySide = materials[a.material]!.doubleSided || materials[b.material]!.doubleSided;
      if (lies(a, smaller, b, larger, drop, anySide)) below[smaller.part]!.add(larger.part);
    }
    open.length = kept;
    open.push(one);
  }
}

const looksAlike = (one: ScenePart, two: ScenePart, { texture }: SceneMaterial): boolean =>
  texture === null && !one.colors && !two.colors;

/** Does a face of the smaller part lie on one of the larger? */
function lies(a: ScenePart, smaller: Faces, b: ScenePart, larger: Faces, drop: number, anySide: boolean): boolean {
  const near = facesNear(a, smaller, larger.box);
  const others = near.length === 0 ? [] : facesNear(b, larger, smaller.box);
  if (others.length === 0) return false;
  const grid = new FaceGrid(b, larger, others, drop);
  let tries = 0;
  return near.some((i) =>
    grid.about(a, smaller.at[i]!, (j) => {
      if ((tries += 1) > MOST_TRIES) return false;
      if (smaller.backs[i] !== larger.backs[j] && !anySide) return false;
      const [one, two] = [smaller.at[i]!, larger.at[j]!];
      return facesOverlap(a, one, b, two, drop) && isBefore(a, one, b, two);
    }),
  );
}

/** Those faces that come near to an extent. */
const facesNear = (part: ScenePart, { at }: Faces, box: Float64Array): number[] =>
  at.flatMap((first, i) => (meet(extentOf(part, first), box) ? [i] : []));

const [normal, otherNormal] = [new Float64Array(3), new Float64Array(3)];

/**
 * Is one face in the plane of another, or a little before it, seen from the side that it faces itself? Told by the plane
 * of the larger one, which rounding turns least.
 */
function isBefore(a: ScenePart, one: number, b: ScenePart, two: number): boolean {
  const corner = (part: ScenePart, at: number, k: number) => 3 * part.indices[at + k]!;
  cornerNormal(a.positions, corner(a, one, 0), corner(a, one, 1), corner(a, one, 2), normal);
  cornerNormal(b.positions, corner(b, two, 0), corner(b, two, 1), corner(b, two, 2), otherNormal);
  const [own, other] = [normal, otherNormal].map((n) => Math.hypot(n[0]!, n[1]!, n[2]!)) as [number, number];
  const facing = Math.sign(dot(normal, otherNormal));
  const byOther = other > own;
  // Along the face's own normal, as the plane of the larger one tells it.
  const scale = byOther ? facing / other : 1 / own;
  const n = byOther ? otherNormal : normal;
  for (let i = 0; i < 3; i += 1) {
    const p = corner(a, one, byOther ? i : 0);
    const q = corner(b, two, byOther ? 0 : i);
    let ahead = 0;
    for (let k = 0; k < 3; k += 1) ahead += scale * n[k]! * (a.positions[p + k]! - b.positions[q + k]!);
    if (ahead > NEAR || ahead < -ROUNDING) return false;
  }
  return true;
}

/** The same model; parts that lie on others know on how many. */
export function layered(model: SceneModel): SceneModel {
  const layers = layersOf(model);
  return { ...model, parts: model.parts.map((part, i) => (layers[i] ? { ...part, layer: layers[i] } : part)) };
}
