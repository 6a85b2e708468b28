import type { Vec3 } from '../document/index.ts';
import { samePlace } from './same-place.ts';
import { cornerNormal } from './triangles.ts';
import { dot, less } from './vectors.ts';

/** Edges of a surface that follow each other, as points, metres. */
export interface EdgeLine {
  points: Vec3[];
  /** The last point leads on to the first. */
  closed: boolean;
}

/** Triangles of a surface: three numbers a corner, three corners a triangle. */
interface Surface {
  positions: Float32Array;
  indices: Uint32Array;
}

/** Faces that meet at more than this are two: the cosine of 20°. */
const BEND = Math.cos((20 * Math.PI) / 180);
/** A line of edges goes on where it turns by less than this: the cosine of 60°. */
const GOES_ON = 0.5;
/** Corners nearer to each other than this part of the surface's size are one. */
const SAME = 1e-6;
/** A line has so many points at most. */
const MOST_POINTS = 20_000;

/**
 * The line of edges nearest to a place: where a surface ends or bends, and on in both directions until it turns away. Of a
 * rail that is all of one of its edges, of a round table its rim.
 * @param surfaces with corners of their own @param near metres
 * @returns null for surfaces without any edge
 */
export function edgeLineAt(surfaces: readonly Surface[], near: Readonly<Vec3>): EdgeLine | null {
  const { place, edges } = edgesOf(surfaces);
  let [nearest, least] = [null as Edge | null, Infinity];
  for (const edge of edges) {
    const away = distanceTo(near, place(edge.a), place(edge.b));
    if (away < least) [nearest, least] = [edge, away];
  }
  if (!nearest) return null;
  const at = new Map<number, Edge[]>();
  for (const edge of edges) for (const end of [edge.a, edge.b]) at.set(end, [...(at.get(end) ?? []), edge]);
  const used = new Set([nearest]);
  /** On from a corner, away from the one before it. */
  const goOn = (before: number, from: number): number[] => {
    const line: number[] = [];
    let [last, here] = [before, from];
    while (line.length < MOST_POINTS) {
      const way = less(place(here), place(last));
      let best: { edge: Edge; to: number; straight: number } | null = null;
      for (const edge of at.get(here) ?? []) {
        if (used.has(edge)) continue;
        const to = edge.a === here ? edge.b : edge.a;
        const straight = cosine(way, less(place(to), place(here)));
        if (straight > (best?.straight ?? GOES_ON)) best = { edge, to, straight };
      }
      if (!best) break;
      used.add(best.edge);
      line.push(best.to);
      [last, here] = [here, best.to];
    }
    return line;
  };
  const { a, b } = nearest;
  const ahead = goOn(a, b);
  const closed = ahead.at(-1) === a;
  const back = closed ? [] : goOn(b, a);
  const line = [...back.reverse(), a, b, ...(closed ? ahead.slice(0, -1) : ahead)];
  return { points: line.map(place), closed };
}

interface Edge {
  a: number;
  b: number;
  /** The corners opposite to it, one a face; both sides of a sheet have the same. */
  opposite: Set<number>;
  /** Normals of its faces, whichever side they show, that differ from each other. */
  normals: Vec3[];
}

/** Does a surface end here, or bend? */
const isEdge = ({ opposite, normals }: Edge) => opposite.size !== 2 || normals.length > 1;

/** All edges of surfaces, their corners brought together where they are in one place. */
function edgesOf(surfaces: readonly Surface[]): { place: (corner: number) => Vec3; edges: Edge[] } {
  const count = surfaces.reduce((sum, { positions }) => sum + positions.length, 0);
  const all = new Float32Array(count);
  let size = 0;
  let begin = 0;
  for (const { positions } of surfaces) {
    all.set(positions, begin);
    begin += positions.length;
    for (const value of positions) size = Math.max(size, Math.abs(value));
  }
  const same = samePlace(all, Math.max(size * SAME, 1e-7));
  const edges = new Map<number, Edge>();
  const normal = new Float64Array(3);
  const addEdge = (from: number, to: number, opposite: number, unit: Vec3) => {
    const [a, b] = from < to ? [from, to] : [to, from];
    const key = a * same.length + b;
    const edge = edges.get(key) ?? { a, b, opposite: new Set<number>(), normals: [] };
    edge.opposite.add(opposite);
    if (!edge.normals.some((other) => Math.abs(dot(other, unit)) > BEND)) edge.normals.push(unit);
    edges.set(key, edge);
  };
  begin = 0;
  for (const { positions, indices } of surfaces) {
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => same[begin + indices[i + k]!]!) as Vec3;
      cornerNormal(all, 3 * a, 3 * b, 3 * c, normal);
      const length = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
      // A face without an area bends nothing.
      if (!(length > 0)) continue;
      const unit: Vec3 = [normal[0]! / length, normal[1]! / length, normal[2]! / length];
      addEdge(a, b, c, unit);
      addEdge(b, c, a, unit);
      addEdge(c, a, b, unit);
    }
    begin += positions.length / 3;
  }
  const place = (corner: number): Vec3 => [all[3 * corner]!, all[3 * corner + 1]!, all[3 * corner + 2]!];
  return { place, edges: [...edges.values()].filter(isEdge) };
}

const cosine = (a: Vec3, b: Vec3): number => dot(a, b) / (Math.hypot(...a) * Math.hypot(...b) || 1);

function distanceTo(p: Readonly<Vec3>, a: Vec3, b: Vec3): number {
  const way = less(b, a);
  const to: Vec3 = [p[0] - a[0], p[1] - a[1], p[2] - a[2]];
  const part = Math.min(1, Math.max(0, dot(to, way) / (dot(way, way) || 1)));
  return Math.hypot(...to.map((value, k) => value - part * way[k]!));
}
