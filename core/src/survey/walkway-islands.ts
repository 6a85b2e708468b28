import { Detour, NavMeshQuery, QueryFilter, type NavMesh } from '@recast-navigation/core';
import type { Vec3 } from '../document/index.ts';
import { TRIANGLE } from '../geometry/index.ts';
import { FloorIndex } from './floor-index.ts';

/** Islands that nobody gets to and that are smaller are tables and sills, square metres. */
const LEAST_ISLAND = 2;
/** An island with so much of it over where people walk is a roof. */
const ROOF = 0.5;
/** A place in a room is looked for on the mesh within this distance, metres. */
const NEAR = { x: 0.5, y: 0.6, z: 0.5 };

/** Islands that are farther apart are not looked at together, metres. */
const LOOKED = { x: 4, y: 4, z: 4 };
/** Marks of the polygons of two islands. */
const ISLAND_FLAGS = [2, 4] as const;
const CROSSINGS = 4;

interface Polygon {
  ref: number;
  links: number[];
  /** Nine numbers a triangle, metres. */
  triangles: number[];
}

/** Polygons of a mesh that are not disabled. */
export function polygonsOf(mesh: NavMesh): Polygon[] {
  const out: Polygon[] = [];
  for (let t = 0; t < mesh.getMaxTiles(); t += 1) {
    const tile = mesh.getTile(t);
    const header = tile.header();
    if (!header) continue;
    const base = mesh.getPolyRefBase(tile);
    for (let p = 0; p < header.polyCount(); p += 1) {
      const poly = tile.polys(p);
      if (poly.flags() === 0 || poly.getType() === 1) continue;
      const corners = poly.vertCount();
      const detail = tile.detailMeshes(p);
      const triangles: number[] = [];
      for (let k = 0; k < detail.triCount(); k += 1)
        for (let c = 0; c < 3; c += 1) {
          const v = tile.detailTris((detail.triBase() + k) * 4 + c);
          const own = v < corners;
          const o = 3 * (own ? poly.verts(v) : detail.vertBase() + v - corners);
          for (let axis = 0; axis < 3; axis += 1)
            triangles.push(own ? tile.verts(o + axis) : tile.detailVerts(o + axis));
        }
      const links: number[] = [];
      for (let i = poly.firstLink(); i !== Detour.DT_NULL_LINK; i = tile.links(i).next())
        links.push(tile.links(i).ref() >>> 0);
      out.push({ ref: (base | p) >>> 0, links, triangles });
    }
  }
  return out;
}

const polygonsByRef = (mesh: NavMesh): Map<number, Polygon> =>
  new Map(polygonsOf(mesh).map((polygon) => [polygon.ref, polygon]));

/** What one can get to from a polygon. @param seen left out, and added to */
function islandFrom(start: number, byRef: ReadonlyMap<number, Polygon>, seen = new Set<number>()): Polygon[] {
  const queue = [start];
  const out: Polygon[] = [];
  for (let ref = queue.pop(); ref !== undefined; ref = queue.pop()) {
    const polygon = byRef.get(ref);
    if (!polygon || seen.has(ref)) continue;
    seen.add(ref);
    out.push(polygon);
    queue.push(...polygon.links);
  }
  return out;
}

/**
 * Where what one can get to from one place comes nearest to what one can get to from another: a point of either, metres.
 * Null where one of them is on no floor, both are on one island, or the islands are farther apart than is looked.
 */
export function nearestShores(mesh: NavMesh, from: Vec3, to: Vec3): [Vec3, Vec3] | null {
  const byRef = polygonsByRef(mesh);
  const query = new NavMeshQuery(mesh);
  const filter = new QueryFilter();
  const islands = [from, to].map(([x, y, z]) => {
    const { success, nearestRef } = query.findNearestPoly({ x, y, z }, { halfExtents: NEAR });
    return success && nearestRef !== 0 ? islandFrom(nearestRef >>> 0, byRef) : [];
  });
  const flags = islands.flat().map(({ ref }) => [ref, mesh.getPolyFlags(ref).flags] as const);
  try {
    const [here, there] = islands as [Polygon[], Polygon[]];
    if (!there.length || here.some(({ ref }) => ref === there[0]!.ref)) return null;
    islands.forEach((polygons, i) => polygons.forEach(({ ref }) => mesh.setPolyFlags(ref, ISLAND_FLAGS[i]!)));
    const nearest = (point: Vec3, island: 0 | 1): Vec3 | null => {
      filter.includeFlags = ISLAND_FLAGS[island];
      const [x, y, z] = point;
      const found = query.findNearestPoly({ x, y, z }, { halfExtents: LOOKED, filter });
      return found.success && found.nearestRef !== 0
        ? [found.nearestPoint.x, found.nearestPoint.y, found.nearestPoint.z]
        : null;
    };
    let best: { distance: number; pair: [Vec3, Vec3] } | null = null;
    for (const corner of verticesOf(here)) {
      const across = nearest(corner, 1);
      const distance = across ? Math.hypot(...across.map((value, k) => value - corner[k]!)) : Infinity;
      if (across && distance < (best?.distance ?? Infinity)) best = { distance, pair: [corner, across] };
    }
    if (!best) return null;
    // Corners of the one are all that was looked at: from shore to shore a few times comes as near as there is.
    const { pair } = best;
    for (let i = 0; i < CROSSINGS; i += 1) {
      pair[0] = nearest(pair[1], 0) ?? pair[0];
      pair[1] = nearest(pair[0], 1) ?? pair[1];
    }
    return pair;
  } finally {
    for (const [ref, was] of flags) mesh.setPolyFlags(ref, was);
    query.destroy();
  }
}

function verticesOf(polygons: readonly Polygon[]): Vec3[] {
  const corners = new Map<string, Vec3>();
  for (const { triangles } of polygons)
    for (let o = 0; o < triangles.length; o += 3) {
      const corner = triangles.slice(o, o + 3) as Vec3;
      corners.set(corner.join(' '), corner);
    }
  return [...corners.values()];
}

/**
 * Disables what can be stood on but is no place to walk: roofs and table tops that nobody gets to from a room. Islands
 * of open ground stay.
 * @param rooms a place in each room, metres; without any nothing is taken away
 */
export function leaveOutRoofs(mesh: NavMesh, rooms: readonly Vec3[]): void {
  const byRef = polygonsByRef(mesh);
  const seen = new Set<number>();
  const island = (start: number) => islandFrom(start, byRef, seen);
  const query = new NavMeshQuery(mesh);
  const walked = rooms.flatMap(([x, y, z]) => {
    const { success, nearestRef } = query.findNearestPoly({ x, y, z }, { halfExtents: NEAR });
    return success && nearestRef !== 0 ? island(nearestRef >>> 0) : [];
  });
  query.destroy();
  if (walked.length === 0) return;
  const floors = new FloorIndex(Float32Array.from(walked.flatMap(({ triangles }) => triangles)));
  for (const start of byRef.keys()) {
    if (seen.has(start)) continue;
    const polygons = island(start);
    let [area, over] = [0, 0];
    for (const { triangles: t } of polygons)
      for (let o = 0; o < t.length; o += TRIANGLE) {
        const size =
          Math.abs((t[o + 3]! - t[o]!) * (t[o + 8]! - t[o + 2]!) - (t[o + 6]! - t[o]!) * (t[o + 5]! - t[o + 2]!)) / 2;
        const middle = (k: number) => (t[o + k]! + t[o + 3 + k]! + t[o + 6 + k]!) / 3;
        area += size;
        if (floors.floorBelow(middle(0), middle(2), middle(1) - 1) > -Infinity) over += size;
      }
    if (area < LEAST_ISLAND || over >= ROOF * area) for (const { ref } of polygons) mesh.setPolyFlags(ref, 0);
  }
}
