import { isGlass, type BakedLight, type SceneModel, type ScenePart } from '../../format/index.ts';
import { boundsOf, cornerArea, longestAxis } from '../../geometry/index.ts';
import { DARKEST, SUN_SHARE, type Daylight } from './daylight.ts';

/** Points of a site that a picture is metered by, about. */
export const MOST_POINTS = 10_000;
/** Cells of a part along an axis, at most. */
const MOST_CELLS = 4096;
/** Where more than so many times the wanted points are found, cells are made larger, so often. */
const MORE = 1.3;
const TRIES = 5;
/** Numbers of a point: place, normal, the logarithms of the light that falls there, and its area. */
export const POINT_NUMBERS = 10;

/**
 * The points of a lit site that its pictures are metered by.
 * @returns one after another: place (metres), normal, logarithms of the light that falls there (red, green, blue), area (m²)
 */
export function meterPoints(model: SceneModel, outdoors: Daylight): Float32Array {
  const lit = model.parts.filter(({ light }) => light !== null);
  const step = Math.max(1, lit.reduce((sum, { positions }) => sum + positions.length / 3, 0) / MOST_POINTS);
  const points: number[] = [];
  for (const part of lit) {
    // Glass is given the light of what is behind it: it says nothing of the room.
    if (!isGlass(model.materials[part.material]!)) addPoints(points, part, part.light!, outdoors, step);
  }
  return Float32Array.from(points);
}

/**
 * Adds the points that a part is metered by: what faces one way in one cell of it is one point. Nothing hangs on how its
 * vertices are numbered, or on where the part is.
 * @param step so many vertices are one point, about
 */
function addPoints(
  points: number[],
  part: ScenePart,
  { ambient, sun }: BakedLight,
  outdoors: Daylight,
  step: number,
): void {
  const { positions, normals } = part;
  const areas = vertexAreas(part);
  const { min, max } = boundsOf(positions);
  const shown = shownVertices(areas, ambient, outdoors);
  const falls = Float64Array.from({ length: 3 * shown.length }, (_, n) => {
    const [v, k] = [shown[Math.floor(n / 3)]!, n % 3];
    return Math.log(Math.max(1e-4, ambient[3 * v + k]! + SUN_SHARE * outdoors.sun[k]! * sun[v]!));
  });
  const inCells = (cell: number) => {
    const cells = new Map<number, { at: number; area: number; logs: [number, number, number] }>();
    // Cells along each axis: numbers that are small are found fastest.
    const along = min.map((from, k) => Math.min(MOST_CELLS, Math.floor((max[k]! - from) / cell) + 1));
    for (let i = 0; i < shown.length; i += 1) {
      const o = 3 * shown[i]!;
      const area = areas[shown[i]!]!;
      let key = sideOf(normals, o);
      for (let k = 0; k < 3; k += 1)
        key = key * along[k]! + Math.min(along[k]! - 1, Math.floor((positions[o + k]! - min[k]!) / cell));
      let point = cells.get(key);
      if (!point) cells.set(key, (point = { at: o, area: 0, logs: [0, 0, 0] }));
      if (area > areas[point.at / 3]!) point.at = o;
      point.area += area;
      for (let k = 0; k < 3; k += 1) point.logs[k]! += area * falls[3 * i + k]!;
    }
    return cells;
  };
  const wanted = areas.length / step;
  // As large as they were if each vertex of a plain surface had an equal share; where things stand close, larger.
  let cell = Math.sqrt(areas.reduce((sum, area) => sum + area, 0) / wanted);
  let cells = inCells(cell);
  for (let tries = 0; tries < TRIES && cells.size > MORE * wanted; tries += 1)
    cells = inCells((cell *= Math.sqrt(cells.size / wanted)));
  for (const { at, area, logs } of cells.values()) {
    points.push(...positions.subarray(at, at + 3), ...normals.subarray(at, at + 3));
    points.push(...logs.map((sum) => sum / area), area);
  }
}

/** Vertices that stand for something which light falls on: where none comes is under the ground or within a wall. */
function shownVertices(areas: Float64Array, ambient: Float32Array, outdoors: Daylight): Uint32Array {
  const [red, green, blue] = outdoors.zenith.map((value) => 1.05 * DARKEST * value) as [number, number, number];
  const out = new Uint32Array(areas.length);
  let count = 0;
  for (let v = 0; v < areas.length; v += 1) {
    const dark = ambient[3 * v]! <= red && ambient[3 * v + 1]! <= green && ambient[3 * v + 2]! <= blue;
    if (areas[v]! > 0 && !dark) out[count++] = v;
  }
  return out.subarray(0, count);
}

/** Which of the six sides of a cube a normal is nearest to: 0…5. */
function sideOf(normals: Float32Array, o: number): number {
  const axis = longestAxis(normals, o);
  return 2 * axis + (normals[o + axis]! < 0 ? 1 : 0);
}

/** Area that each vertex of a part stands for, square metres. */
function vertexAreas({ positions: p, indices }: ScenePart): Float64Array {
  const areas = new Float64Array(p.length / 3);
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    const share = cornerArea(p, a, b, c) / 3;
    for (let k = 0; k < 3; k += 1) areas[indices[t + k]!]! += share;
  }
  return areas;
}
