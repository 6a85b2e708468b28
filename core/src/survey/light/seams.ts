import { cameWith, type ScenePart } from '../../format/index.ts';
import { cornerNormal, samePlace, withoutNeedles } from '../../geometry/index.ts';
import { evenSeams } from './even-seams.ts';
import { GrowingPart } from './growing-part.ts';

/** Corners nearer than this are one place, and a corner so near to an edge is on it, metres. */
const SAME_PLACE = 1e-4;
/** Faces that are turned against each other by less make one surface: cosine. */
const FLAT = 0.999;
/** Side of the cells that corners are found by, metres, and as many of them as an edge is looked for in at most. */
const CELL = 0.4;
const MOST_CELLS = 400;

/** Where a corner of one part lies on an edge of another. */
interface OnEdge {
  /** How far along it, 0…1 from the end with the lower place. */
  t: number;
  corner: number;
}

/** Corners of seams of all parts: three coordinates each, and by cell. */
interface Corners {
  at: number[];
  cells: Map<number, number[]>;
}

/** What is known of a part: where its edges are cut, and which places are at its seams. */
interface PartSeams {
  /** For every vertex the first one at its place. */
  places: Uint32Array;
  /** By edge. */
  cuts: Map<number, OnEdge[]>;
  ends: Set<number>;
}

/**
 * Seams of parts whose edges meet edges of others at corners: where one edge passes the corner of another, a hair of what
 * is behind would be seen between them. They are found once; parts in any light can be closed along them.
 */
export class Seams {
  private readonly corners: Corners = { at: [], cells: new Map() };
  private readonly parts: readonly PartSeams[];
  /** Triangles of the parts once they are closed. */
  private diagonals: readonly Uint32Array[] | null = null;

  constructor(parts: readonly ScenePart[]) {
    const edges = parts.map((part) => edgesOf(part));
    edges.forEach((own, i) => takeCorners(parts[i]!, own, this.corners));
    this.parts = edges.map(({ places, edges: own }, i) => ({
      places,
      cuts: cutsOf(parts[i]!, places, own, this.corners),
      ends: new Set([...own.values()].flat().map((v) => places[v]!)),
    }));
  }

  /** The same parts: edges have got the corners that lie on them, and what meets there has one light. */
  close(parts: readonly ScenePart[]): ScenePart[] {
    const cut = parts.map((part, i) => cutAt(part, this.parts[i]!, this.corners));
    const wanted = cut.map(({ positions }, i) => {
      const { places, ends } = this.parts[i]!;
      // What was put into edges comes after the part's own vertices.
      return Array.from({ length: positions.length / 3 }, (_, v) => v).filter(
        (v) => v >= places.length || ends.has(places[v]!),
      );
    });
    // Corners near each other make needles; which diagonals are better is the same in any light.
    this.diagonals ??= cut.map(({ positions, normals, indices }) => withoutNeedles(positions, normals, indices));
    return evenSeams(cut, wanted).map((part, i) => ({ ...part, indices: this.diagonals![i]! }));
  }
}

/** Edges of a part that are not within one of its surfaces, by their ends' places. */
interface Edges {
  places: Uint32Array;
  /** Two vertices of each. */
  edges: Map<number, [number, number]>;
}

const keyOf = (places: Uint32Array, a: number, b: number): number =>
  Math.min(places[a]!, places[b]!) * places.length + Math.max(places[a]!, places[b]!);

function edgesOf({ positions, indices }: ScenePart): Edges {
  const places = samePlace(positions, SAME_PLACE);
  const edges = new Map<number, [number, number]>();
  const normals = new Map<number, readonly [number, number, number] | null>();
  for (let t = 0; t < indices.length; t += 3) {
    cornerNormal(positions, 3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!, normal);
    const size = Math.hypot(normal[0]!, normal[1]!, normal[2]!) || 1;
    const own = [normal[0]! / size, normal[1]! / size, normal[2]! / size] as const;
    for (let k = 0; k < 3; k += 1) {
      const [a, b] = [indices[t + k]!, indices[t + ((k + 1) % 3)]!];
      const key = keyOf(places, a, b);
      const other = normals.get(key);
      if (other === undefined) {
        normals.set(key, own);
        edges.set(key, [a, b]);
      } else if (other && other[0] * own[0] + other[1] * own[1] + other[2] * own[2] > FLAT) {
        normals.set(key, null);
        edges.delete(key);
      }
    }
  }
  return { places, edges };
}
const normal = new Float64Array(3);

const cellOf = (x: number, y: number, z: number): number =>
  ((Math.floor(x / CELL) & 0xffff) * 65_536 + (Math.floor(y / CELL) & 0xffff)) * 65_536 +
  (Math.floor(z / CELL) & 0xffff);

function takeCorners({ positions: p }: ScenePart, { places, edges }: Edges, { at, cells }: Corners): void {
  const taken = new Set<number>();
  for (const ends of edges.values())
    for (const v of ends) {
      if (taken.has(places[v]!)) continue;
      taken.add(places[v]!);
      const key = cellOf(p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!);
      const cell = cells.get(key);
      const number = at.length / 3;
      at.push(p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!);
      if (cell) cell.push(number);
      else cells.set(key, [number]);
    }
}

/** The corners that lie on an edge, but not at its ends, from its lower end on. */
function onEdge(p: Float32Array, a: number, b: number, { at, cells }: Corners): OnEdge[] {
  const from = [p[3 * a]!, p[3 * a + 1]!, p[3 * a + 2]!];
  const way = [p[3 * b]! - from[0]!, p[3 * b + 1]! - from[1]!, p[3 * b + 2]! - from[2]!];
  const long = Math.hypot(way[0]!, way[1]!, way[2]!);
  const first = from.map((value, k) => Math.floor((Math.min(value, value + way[k]!) - SAME_PLACE) / CELL));
  const last = from.map((value, k) => Math.floor((Math.max(value, value + way[k]!) + SAME_PLACE) / CELL));
  if (last.reduce((product, value, k) => product * (value - first[k]! + 1), 1) > MOST_CELLS) return [];
  const found: OnEdge[] = [];
  for (let x = first[0]!; x <= last[0]!; x += 1)
    for (let y = first[1]!; y <= last[1]!; y += 1)
      for (let z = first[2]!; z <= last[2]!; z += 1)
        for (const corner of cells.get(((x & 0xffff) * 65_536 + (y & 0xffff)) * 65_536 + (z & 0xffff)) ?? []) {
          const [i, j, k] = [
            at[3 * corner]! - from[0]!,
            at[3 * corner + 1]! - from[1]!,
            at[3 * corner + 2]! - from[2]!,
          ];
          const t = (i * way[0]! + j * way[1]! + k * way[2]!) / (long * long);
          if (t * long < 5 * SAME_PLACE || (1 - t) * long < 5 * SAME_PLACE) continue;
          const off = Math.hypot(i - t * way[0]!, j - t * way[1]!, k - t * way[2]!);
          if (off < SAME_PLACE) found.push({ t, corner });
        }
  // Several parts have a corner there: one is enough.
  return found
    .sort((one, two) => one.t - two.t)
    .filter(({ t }, i) => i === 0 || (t - found[i - 1]!.t) * long > SAME_PLACE);
}

/** Where the edges of a part are cut. */
function cutsOf(
  { positions }: ScenePart,
  places: Uint32Array,
  edges: Edges['edges'],
  corners: Corners,
): Map<number, OnEdge[]> {
  const cuts = new Map<number, OnEdge[]>();
  for (const [key, [u, v]] of edges) {
    const [low, high] = places[u]! < places[v]! ? [u, v] : [v, u];
    const on = onEdge(positions, low, high, corners);
    if (on.length > 0) cuts.set(key, on);
  }
  return cuts;
}

/** A part with the corners of others on its edges. */
function cutAt(part: ScenePart, { places, cuts }: PartSeams, corners: Corners): ScenePart {
  if (cuts.size === 0) return part;
  const growing = new GrowingPart(part);
  const indices: number[] = [];
  const { indices: given } = part;
  for (let t = 0; t < given.length; t += 3) {
    const triangle = [given[t]!, given[t + 1]!, given[t + 2]!] as const;
    const ring: number[][] = [0, 1, 2].map((k) => {
      const [a, b] = [triangle[k]!, triangle[(k + 1) % 3]!];
      const on = cuts.get(keyOf(places, a, b));
      if (!on) return [];
      const turned = places[a]! > places[b]!;
      const made = on.map(({ t: far, corner }) => {
        const vertex = growing.between(a, b, turned ? 1 - far : far);
        growing.put(vertex, corners.at, 3 * corner);
        return vertex;
      });
      return turned ? made.reverse() : made;
    });
    fan(triangle, ring as [number[], number[], number[]], indices);
  }
  return { ...growing.made(indices), came: cameWith(part) };
}

/** Triangles of one whose sides have more corners, in order round it. */
function fan(
  [a, b, c]: readonly [number, number, number],
  [ab, bc, ca]: readonly [readonly number[], readonly number[], readonly number[]],
  out: number[],
): void {
  // Cut from the middle of a side that has corners to what is opposite, until none has.
  if (ab.length > 0) {
    const half = ab.length >> 1;
    fan([a, ab[half]!, c], [ab.slice(0, half), [], ca], out);
    fan([ab[half]!, b, c], [ab.slice(half + 1), bc, []], out);
  } else if (bc.length > 0) fan([b, c, a], [bc, ca, ab], out);
  else if (ca.length > 0) fan([c, a, b], [ca, ab, bc], out);
  else out.push(a, b, c);
}
