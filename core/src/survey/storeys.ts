import type { Storey } from '../document/index.ts';
import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import type { FloorIndex } from './floor-index.ts';

/** Height classes of the area histogram, metres. */
const BIN = 0.05;
/** Floors nearer than this are one storey with steps in it, metres. */
const SEPARATION = 1.8;
/** A floor must have at least this much area, and this share of the largest, to be a storey. */
const LEAST_AREA = 4;
const LEAST_SHARE = 0.06;
/** Head room, metres: less and nobody walks there. */
const HEAD_ROOM = 1.9;

/** The open ground shows as a storey of its own when it lies at least this far from a floor inside, metres. */
const GROUND_SEPARATION = 0.3;
/** Open ground counts up to this far around what is under cover, metres. */
const SURROUNDINGS = 6;

/** Name of the open ground around a house. */
export const OUTSIDE = 'Outside';

/** A storey and where its floor is in plan: [minX, minZ, maxX, maxZ], metres. */
export interface FoundStorey extends Storey {
  extent: [number, number, number, number];
}

/** A level being added up. */
interface Level {
  area: number;
  /** Area, and height × area, of its largest height class: the floor itself, without the odd step beside it. */
  peakArea: number;
  peakMoment: number;
}

/** A piece of walkable surface with head room, small enough to be under cover or not. */
interface Patch {
  x: number;
  y: number;
  z: number;
  area: number;
  covered: boolean;
}

/**
 * Finds storeys: heights at which there is much floor under cover (so that a flat roof is none), apart from each
 * other, and the open ground around them. Without any cover the ground alone is the one storey.
 * @param walkable what one could stand on; see `walkableTriangles`
 * @param cover what can be overhead; see `coverTriangles`
 * @returns from the lowest up; empty where nothing can be walked on
 */
export function findStoreys(walkable: TriangleSoup, cover: FloorIndex): FoundStorey[] {
  const patches = patchesOf(walkable, cover);
  const built = houses(patches);
  const chosen: Level[] = [];
  const inside = levelsOf(built.filter((patch) => patch.covered));
  const largest = inside[0]?.area ?? 0;
  for (const level of inside) {
    if (level.area < Math.min(LEAST_AREA, largest) || level.area < LEAST_SHARE * largest) continue;
    if (chosen.every((other) => Math.abs(elevation(other) - elevation(level)) >= SEPARATION)) chosen.push(level);
  }
  const hasInside = chosen.length > 0;
  const ground = levelsOf(nearCover(built).filter((patch) => !patch.covered))[0];
  const lowest = Math.min(...chosen.map(elevation));
  const groundShows =
    ground &&
    (!hasInside ||
      (ground.area >= LEAST_AREA &&
        elevation(ground) < lowest + 1 &&
        chosen.every((other) => Math.abs(elevation(other) - elevation(ground)) >= GROUND_SEPARATION)));
  if (groundShows) chosen.push(ground);
  chosen.sort((a, b) => elevation(a) - elevation(b));
  const first = groundShows && hasInside ? chosen.indexOf(ground) + 1 : 0;
  return chosen.map((level, i) => ({
    name: groundShows && hasInside && level === ground ? OUTSIDE : i <= first ? 'Ground' : `Level ${i - first}`,
    elevation: Math.round(elevation(level) * 1000) / 1000,
    area: Math.round(level.area * 100) / 100,
    extent: extentOf(hasInside ? nearCover(built) : patches, elevation(level), level !== ground),
  }));
}

const elevation = (level: Level) => level.peakMoment / level.peakArea;

/** Steps and platforms this far below and above a floor belong to its storey, metres. */
const BELOW = 0.75;
const ABOVE = 1.2;

/** Plan extent of a storey: its floor with the steps and platforms in it; under cover only, for storeys of a house. */
function extentOf(patches: readonly Patch[], height: number, covered: boolean): FoundStorey['extent'] {
  const extent: FoundStorey['extent'] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y, z, area, covered: roofed } of patches) {
    if (y < height - BELOW || y > height + ABOVE || (covered && !roofed)) continue;
    // A patch is known by its middle.
    const half = Math.sqrt(area) / 2;
    extent[0] = Math.min(extent[0], x - half);
    extent[1] = Math.min(extent[1], z - half);
    extent[2] = Math.max(extent[2], x + half);
    extent[3] = Math.max(extent[3], z + half);
  }
  return extent.map((value) => Math.round(value * 100) / 100) as FoundStorey['extent'];
}

/** Looks at about one point a square metre of every walkable triangle. */
function patchesOf(walkable: TriangleSoup, cover: FloorIndex): Patch[] {
  const normal = new Float64Array(3);
  const patches: Patch[] = [];
  for (let i = 0; i < walkable.length / TRIANGLE; i += 1) {
    triangleNormal(walkable, i, normal);
    const area = normal[1]! / 2;
    const o = i * TRIANGLE;
    const rows = Math.min(8, Math.max(1, Math.ceil(Math.sqrt(area))));
    // The centres of rows² equal small triangles.
    for (let r = 0; r < rows; r += 1)
      for (let c = 0; c < 2 * r + 1; c += 1) {
        const upright = c % 2 === 0;
        const v = ((c - (upright ? 0 : 1)) / 2 + (upright ? 1 / 3 : 2 / 3)) / rows;
        const u = (r + (upright ? 2 / 3 : 1 / 3)) / rows - v;
        const at = (k: number) => walkable[o + k]! * (1 - u - v) + walkable[o + 3 + k]! * u + walkable[o + 6 + k]! * v;
        const [x, y, z] = [at(0), at(1), at(2)];
        const above = cover.nextAbove(x, z, y + 0.01);
        if (above < y + HEAD_ROOM) continue;
        patches.push({ x, y, z, area: area / (rows * rows), covered: above < Infinity });
      }
  }
  return patches;
}

/** Covered places farther apart than this are not one house, metres. */
const APART = 5;
/** What covers less than this share of what the largest house covers is none: a tree, a shelter, a parked car. */
const LEAST_HOUSE = 0.3;

/** The same patches, with only houses counted as cover: a tree over the marsh makes no storey. */
function houses(patches: readonly Patch[]): Patch[] {
  const cells = new Map<string, { c: number; r: number; area: number; patches: Patch[] }>();
  for (const patch of patches) {
    if (!patch.covered) continue;
    const [c, r] = [Math.floor(patch.x / APART), Math.floor(patch.z / APART)];
    const key = `${c},${r}`;
    const cell = cells.get(key) ?? { c, r, area: 0, patches: [] };
    cell.area += patch.area;
    cell.patches.push(patch);
    cells.set(key, cell);
  }
  const groups: { area: number; patches: Patch[] }[] = [];
  for (const [key, first] of cells) {
    if (!cells.delete(key)) continue;
    const group = { area: 0, patches: [] as Patch[] };
    const queue = [first];
    for (let cell = queue.pop(); cell; cell = queue.pop()) {
      group.area += cell.area;
      group.patches.push(...cell.patches);
      for (let dc = -1; dc <= 1; dc += 1)
        for (let dr = -1; dr <= 1; dr += 1) {
          const near = `${cell.c + dc},${cell.r + dr}`;
          const next = cells.get(near);
          if (next && cells.delete(near)) queue.push(next);
        }
    }
    groups.push(group);
  }
  const largest = Math.max(0, ...groups.map(({ area }) => area));
  const kept = new Set(groups.filter(({ area }) => area >= LEAST_HOUSE * largest).flatMap((group) => group.patches));
  return patches.map((patch) => (patch.covered && !kept.has(patch) ? { ...patch, covered: false } : patch));
}

/** Patches within the surroundings of what is covered; all of them where nothing is. */
function nearCover(patches: readonly Patch[]): Patch[] {
  let [x0, x1, z0, z1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, z, covered } of patches) {
    if (!covered) continue;
    [x0, x1] = [Math.min(x0, x), Math.max(x1, x)];
    [z0, z1] = [Math.min(z0, z), Math.max(z1, z)];
  }
  if (x0 > x1) return [...patches];
  const d = SURROUNDINGS;
  return patches.filter(({ x, z }) => x > x0 - d && x < x1 + d && z > z0 - d && z < z1 + d);
}

/** Adds patches up by height; neighbouring height classes are one level. Largest first. */
function levelsOf(patches: readonly Patch[]): Level[] {
  const bins = new Map<number, { moment: number; area: number }>();
  for (const { y, area } of patches) {
    const bin = Math.round(y / BIN);
    const sum = bins.get(bin) ?? { moment: 0, area: 0 };
    sum.moment += y * area;
    sum.area += area;
    bins.set(bin, sum);
  }
  const merged: Level[] = [];
  let before = -Infinity;
  for (const [bin, { moment, area }] of [...bins].sort((a, b) => a[0] - b[0])) {
    if (bin - before > 1) merged.push({ area: 0, peakArea: 0, peakMoment: 0 });
    const level = merged.at(-1)!;
    level.area += area;
    if (area > level.peakArea) Object.assign(level, { peakArea: area, peakMoment: moment });
    before = bin;
  }
  return merged.sort((a, b) => b.area - a.area);
}
