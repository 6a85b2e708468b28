import type { ScenePart } from '../../format/index.ts';
import { cornerNormal, samePlace } from '../../geometry/index.ts';
import { GrowingPart } from './growing-part.ts';
import type { Line, StandingFaces } from './standing.ts';

/** What lies between both faces of a wall, and on both sides of it, takes this many rounds. */
const ROUNDS = 4;
/** No edge is cut nearer to its ends than this, metres. */
const NEAR = 0.01;
/** Where an edge only just misses the end of a line it is cut as well, metres. */
const MISS = 0.005;
/** Corners nearer than this are one place, metres. */
const SAME_PLACE = 1e-4;

/** The side of what lies behind a face that stands there: mostly under a wall. */
const UNDER = 1;

/** Where an edge is cut, and by what. */
interface Cut {
  /** Part of the way from the end with the lower place, 0…1. */
  t: number;
  facing: readonly [number, number, number];
  at: readonly [number, number, number];
}

/** A part that is cut where others stand on it. */
export interface PartedPart {
  part: ScenePart;
  /** For each vertex the side of its triangles, 0 or {@link UNDER}: those of two sides share none. */
  sides: Uint8Array;
}

/**
 * Cuts fine triangles where large faces stand on them, so that the light of a room ends at its walls: a floor goes on
 * under a wall, and one triangle of it would take the light of one room into the next. Neighbours are cut at the same
 * points.
 * @param fine on triangles that are small enough for light
 */
export function partAtContacts(fine: ScenePart, standing: StandingFaces): PartedPart {
  const large = largeOf(fine);
  if (!isStoodOn(fine, large, standing)) return { part: fine, sides: new Uint8Array(fine.positions.length / 3) };
  const growing = new GrowingPart(fine);
  const places = Array.from(samePlace(fine.positions, SAME_PLACE));
  let nextPlace = places.length;
  const keyOf = (a: number, b: number) => {
    const [low, high] = [Math.min(places[a]!, places[b]!), Math.max(places[a]!, places[b]!)];
    return low * 8_388_608 + high;
  };
  let indices: number[] = Array.from(fine.indices);
  let sides: number[] = new Array<number>(indices.length / 3).fill(0);
  /** Triangles that may have to be cut. */
  let open: Uint8Array = large;
  for (let round = 0; round < ROUNDS; round += 1) {
    const cuts = cutsOf(growing.positions, indices, open, standing, (a, b) => ({
      key: keyOf(a, b),
      turned: places[a]! > places[b]!,
    }));
    if (cuts.size === 0) break;
    const made = new Map<number, number>();
    const placeOnEdge = new Map<number, number>();
    const cutAt = (a: number, b: number): number => {
      const pair = a < b ? a * 8_388_608 + b : b * 8_388_608 + a;
      const known = made.get(pair);
      if (known !== undefined) return known;
      const edge = keyOf(a, b);
      const { t } = cuts.get(edge)!;
      const vertex = growing.between(a, b, places[a]! > places[b]! ? 1 - t : t);
      let place = placeOnEdge.get(edge);
      if (place === undefined) placeOnEdge.set(edge, (place = nextPlace += 1));
      places.push(place);
      made.set(pair, vertex);
      return vertex;
    };
    const next: number[] = [];
    const nextSides: number[] = [];
    const nextOpen: number[] = [];
    const p = growing.positions;
    for (let k = 0; k < indices.length; k += 3) {
      const triangle = [indices[k]!, indices[k + 1]!, indices[k + 2]!] as const;
      const on = [0, 1, 2].map((c) => cuts.get(keyOf(triangle[c]!, triangle[(c + 1) % 3]!)));
      if (!on.some((cut) => cut !== undefined)) {
        next.push(...triangle);
        nextSides.push(sides[k / 3]!);
        nextOpen.push(0);
        continue;
      }
      const cutBy = on.flatMap((cut, c) => (cut ? [{ cut, vertex: cutAt(triangle[c]!, triangle[(c + 1) % 3]!) }] : []));
      for (const piece of pieces(triangle, on, cutAt)) {
        next.push(...piece);
        // Under a wall is what lies behind all of the faces that it was cut by.
        const under = cutBy.every(({ cut, vertex }) => !piece.includes(vertex) || isBehind(piece, cut, p));
        nextSides.push(under ? UNDER : 0);
        nextOpen.push(1);
      }
    }
    indices = next;
    sides = nextSides;
    open = Uint8Array.from(nextOpen);
  }
  return apart(growing, indices, sides);
}

/** Does a triangle lie behind the face that it was cut by? */
function isBehind(triangle: readonly number[], { facing, at }: Cut, p: readonly number[]): boolean {
  let off = 0;
  for (let axis = 0; axis < 3; axis += 1) {
    const middle = (p[3 * triangle[0]! + axis]! + p[3 * triangle[1]! + axis]! + p[3 * triangle[2]! + axis]!) / 3;
    off += facing[axis]! * (middle - at[axis]!);
  }
  return off < 0;
}

/** Twice the area of what is large enough for its light to be wrong, square metres. */
const LARGE = 0.04;

/** One for each triangle that is large. */
function largeOf({ positions: p, indices }: ScenePart): Uint8Array {
  const large = new Uint8Array(indices.length / 3);
  for (let k = 0; k < indices.length; k += 3) {
    cornerNormal(p, 3 * indices[k]!, 3 * indices[k + 1]!, 3 * indices[k + 2]!, normal);
    if (Math.hypot(normal[0]!, normal[1]!, normal[2]!) > LARGE) large[k / 3] = 1;
  }
  return large;
}

/** Does anything stand on some triangles? */
function isStoodOn({ positions, indices }: ScenePart, some: Uint8Array, standing: StandingFaces): boolean {
  for (let k = 0; k < indices.length; k += 3)
    if (some[k / 3] && linesOn(positions, indices, k, standing, () => undefined)) return true;
  return false;
}

/** Tells the lines in which faces stand on a triangle. @returns whether there are any */
function linesOn(
  p: ArrayLike<number>,
  indices: ArrayLike<number>,
  first: number,
  standing: StandingFaces,
  tell: (line: Line) => void,
): boolean {
  for (let c = 0; c < 3; c += 1)
    for (let axis = 0; axis < 3; axis += 1) corners[3 * c + axis] = p[3 * indices[first + c]! + axis]!;
  cornerNormal(corners, 0, 3, 6, normal);
  const size = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
  if (size < 1e-9) return false;
  for (let axis = 0; axis < 3; axis += 1) normal[axis]! /= size;
  let any = false;
  standing.on(corners, normal, (line) => {
    any = true;
    tell(line);
  });
  return any;
}
/** The triangle that lines are told of: nine coordinates, and its unit normal. */
const corners = new Float32Array(9);
const normal = new Float64Array(3);

/** Where the edges of triangles are cut by lines on them: by edge. */
function cutsOf(
  p: readonly number[],
  indices: readonly number[],
  open: Uint8Array,
  standing: StandingFaces,
  edgeOf: (a: number, b: number) => { key: number; turned: boolean },
): Map<number, Cut> {
  const cuts = new Map<number, Cut>();
  for (let k = 0; k < indices.length; k += 3) {
    if (!open[k / 3]) continue;
    linesOn(p, indices, k, standing, (line) => {
      for (let c = 0; c < 3; c += 1) {
        const t = crossing(corners, 3 * c, 3 * ((c + 1) % 3), line, normal);
        if (t === null) continue;
        const { key, turned } = edgeOf(indices[k + c]!, indices[k + ((c + 1) % 3)]!);
        if (!cuts.has(key)) cuts.set(key, { t: turned ? 1 - t : t, facing: line.facing, at: line.from });
      }
    });
  }
  return cuts;
}

/** Where an edge meets a line, as part of the edge; null where it does not, or only at its ends. */
function crossing(p: Float32Array, a: number, b: number, { from, to }: Line, n: Float64Array): number | null {
  const [ex, ey, ez] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
  const [wx, wy, wz] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const [ox, oy, oz] = [from[0] - p[a]!, from[1] - p[a + 1]!, from[2] - p[a + 2]!];
  const [nx, ny, nz] = [n[0]!, n[1]!, n[2]!];
  const both = nx * (ey * wz - ez * wy) + ny * (ez * wx - ex * wz) + nz * (ex * wy - ey * wx);
  const [long, wide] = [Math.sqrt(ex * ex + ey * ey + ez * ez), Math.sqrt(wx * wx + wy * wy + wz * wz)];
  if (Math.abs(both) < 1e-3 * long * wide) return null;
  const s = (nx * (oy * ez - oz * ey) + ny * (oz * ex - ox * ez) + nz * (ox * ey - oy * ex)) / both;
  const miss = MISS / wide;
  if (s <= -miss || s >= 1 + miss) return null;
  const t = (nx * (oy * wz - oz * wy) + ny * (oz * wx - ox * wz) + nz * (ox * wy - oy * wx)) / both;
  const near = NEAR / long;
  return t > near && t < 1 - near ? t : null;
}

/** The pieces of a triangle whose edges are cut, by how many of them are. */
function pieces(
  triangle: readonly [number, number, number],
  on: readonly (Cut | undefined)[],
  cutAt: (a: number, b: number) => number,
): [number, number, number][] {
  const cuts = on.map((cut, c) => cut && cutAt(triangle[c]!, triangle[(c + 1) % 3]!));
  const count = cuts.filter((vertex) => vertex !== undefined).length;
  // Turned so that the edge that is cut is the first, or the one that is not is the last.
  const turn = count === 1 ? cuts.findIndex((vertex) => vertex !== undefined) : cuts.indexOf(undefined) + 1;
  const [a, b, c] = [0, 1, 2].map((k) => triangle[(k + turn) % 3]!) as [number, number, number];
  const [ab, bc, ca] = [0, 1, 2].map((k) => cuts[(k + turn) % 3]!) as [number, number, number];
  if (count === 1)
    return [
      [a, ab, c],
      [ab, b, c],
    ];
  if (count === 2)
    return [
      [ab, b, bc],
      [a, ab, bc],
      [a, bc, c],
    ];
  return [
    [a, ab, ca],
    [ab, b, bc],
    [ca, bc, c],
    [ab, bc, ca],
  ];
}

/** Gives triangles on two sides of a cut vertices of their own. */
function apart(growing: GrowingPart, indices: readonly number[], sides: readonly number[]): PartedPart {
  const own = new Map<number, number>();
  const sideOf: number[] = [];
  const taken = new Map<number, number>();
  const out = indices.map((v, i) => {
    const side = sides[Math.floor(i / 3)]!;
    const has = taken.get(v);
    if (has === undefined) taken.set(v, side);
    if (has === undefined || has === side) {
      sideOf[v] = side;
      return v;
    }
    let copy = own.get(v);
    if (copy === undefined) {
      own.set(v, (copy = growing.copy(v)));
      sideOf[copy] = side;
    }
    return copy;
  });
  const part = growing.made(out);
  return { part, sides: Uint8Array.from({ length: part.positions.length / 3 }, (_, v) => sideOf[v] ?? 0) };
}
