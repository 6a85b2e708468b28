import type { Storey } from '../document/index.ts';
import { toRadians, TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import type { FloorIndex } from './floor-index.ts';
import { SEPARATION } from './levels.ts';
import { houses, nearCover, patchesOf, type Patch } from './patches.ts';
import type { SolidBodies } from './solid-bodies.ts';

/** Height classes of the area histogram, metres. */
const BIN = 0.05;
/** Floors at least this far apart that lie beside each other rather than above are half storeys, metres. */
const HALF_SEPARATION = 0.9;
/** Half a storey has at least this share of the largest floor, and lies over no more than this share of a near one. */
const LEAST_HALF = 0.15;
const MOST_SHARED = 0.2;
/** A floor must have at least this much area, and this share of the largest, to be a storey. */
const LEAST_AREA = 4;
const LEAST_SHARE = 0.06;

/** The open ground shows as a storey of its own when it lies at least this far from a floor inside, metres. */
const GROUND_SEPARATION = 0.3;
/** Ground this far above the lowest floor that is no basement is a hill beside the house, metres. */
const HILL = 1;
/** A floor this far below the ground all around is a basement's, metres. */
const BURIED = 0.9;
/** Land under cover that is steeper than any ramp is nobody's floor: the cosine of its slope. */
const LEVEL_LAND = Math.cos(toRadians(5));
/** Surfaces nearer to each other than this are one, metres. */
const SAME = 0.005;
/** Side of the squares of the plan in which floors lie above each other or not, metres. */
const SQUARE = 1;

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
  patches: Patch[];
}

/**
 * Finds storeys: heights at which there is much floor under cover (so that a flat roof is none), apart from each
 * other or beside each other, and the open ground around them. Without any cover the ground alone is the one storey.
 * @param walkable what one could stand on; see `walkableTriangles`
 * @param cover what can be overhead; see `coverTriangles`
 * @param land of what can be walked on, the landscape; null where there is none
 * @param solid what has no rooms in it; null where nothing is
 * @returns from the lowest up; empty where nothing can be walked on
 */
export function findStoreys(
  walkable: TriangleSoup,
  cover: FloorIndex,
  land: FloorIndex | null = null,
  solid: SolidBodies | null = null,
): FoundStorey[] {
  const patches = patchesOf(walkable, cover, solid);
  const built = houses(patches);
  const slopes = slopesOf(walkable, land);
  const inside = storeysInside(
    built.filter((patch) => patch.covered && !slopes(patch)),
    land !== null,
  );
  const near = inside.length > 0 ? nearCover(built) : patches;
  const open = groundOf(near, walkable);
  const ground = levelsOf(open)[0];
  const lowest = lowestAround(open);
  const buried = (level: Level) => height(level) < lowest - BURIED;
  const aboveGround = inside.filter((level) => !buried(level));
  const shows =
    ground !== undefined &&
    ground.area >= LEAST_AREA &&
    (inside.length === 0 ||
      (height(ground) < Math.min(...aboveGround.map(height)) + HILL &&
        inside.every((level) => Math.abs(height(level) - height(ground)) >= GROUND_SEPARATION)));
  const names = namesOf(inside, buried);
  const all = inside.map((level) => ({ level, name: names.get(level)! }));
  if (shows) all.push({ level: ground, name: inside.length > 0 ? OUTSIDE : 'Ground' });
  return all
    .sort((a, b) => height(a.level) - height(b.level))
    .map(({ level, name }) => ({
      name,
      elevation: Math.round(height(level) * 1000) / 1000,
      area: Math.round(level.area * 100) / 100,
      extent: extentOf(near, height(level), level !== ground),
    }));
}

/** Is a patch of a slope of the landscape, as it goes on inside a solid block that stands on it, or under a house on stilts? */
function slopesOf(walkable: TriangleSoup, land: FloorIndex | null): (patch: Patch) => boolean {
  if (!land) return () => false;
  const normal = new Float64Array(3);
  return ({ face, x, y, z }) => {
    triangleNormal(walkable, face, normal);
    if (normal[1]! >= LEVEL_LAND * Math.hypot(normal[0]!, normal[1]!, normal[2]!)) return false;
    return land.floorBelow(x, z, y + SAME) > y - SAME;
  };
}

const height = (level: Level) => level.peakMoment / level.peakArea;

/**
 * The floors under cover that make storeys, from the lowest up.
 * @param onLand then what is covered a little, under eaves, is no storey of its own
 */
function storeysInside(covered: readonly Patch[], onLand: boolean): Level[] {
  const chosen: Level[] = [];
  const levels = levelsOf(covered);
  const largest = levels[0]?.area ?? 0;
  const apart = (level: Level, other: Level) => {
    const away = Math.abs(height(other) - height(level));
    if (away >= SEPARATION) return true;
    return away >= HALF_SEPARATION && level.area >= LEAST_HALF * largest && shared(level, other) <= MOST_SHARED;
  };
  for (const level of levels) {
    if (level.area < (onLand ? LEAST_AREA : Math.min(LEAST_AREA, largest)) || level.area < LEAST_SHARE * largest)
      continue;
    if (chosen.every((other) => apart(level, other))) chosen.push(level);
  }
  return chosen.sort((a, b) => height(a) - height(b));
}

/** Share of a level's squares of the plan that another one lies in too. */
function shared(level: Level, other: Level): number {
  const [own, theirs] = [level, other].map(({ patches }) => new Set(patches.map(squareOf))) as [
    Set<string>,
    Set<string>,
  ];
  let both = 0;
  for (const square of own) if (theirs.has(square)) both += 1;
  return both / own.size;
}

/** An open surface of which more than this lies over floors of the house is a roof or a terrace. */
const MOST_OVER_HOUSE = 0.3;

/** Open ground: under the sky, and not of a roof or a terrace. */
function groundOf(patches: readonly Patch[], walkable: TriangleSoup): Patch[] {
  const lowest = new Map<string, number>();
  for (const patch of patches)
    if (patch.covered) lowest.set(squareOf(patch), Math.min(patch.y, lowest.get(squareOf(patch)) ?? Infinity));
  const open = patches.filter(({ covered }) => !covered);
  const classes = byHeight(open);
  let before = -1;
  for (const { face } of open) {
    if (face === before) continue;
    before = face;
    // A steep triangle has few patches: it joins all heights that it spans.
    const [a, b, c] = [1, 4, 7].map((k) => walkable[face * TRIANGLE + k]!) as [number, number, number];
    const top = Math.round(Math.max(a, b, c) / BIN);
    for (let bin = Math.round(Math.min(a, b, c) / BIN); bin <= top; bin += 1)
      if (!classes.has(bin)) classes.set(bin, []);
  }
  const isOver = (patch: Patch) => patch.y > (lowest.get(squareOf(patch)) ?? Infinity) + HILL;
  // Neighbouring heights are one surface: a pitched roof from its eaves to its ridge, a slope.
  return runsOf(classes).flatMap((run) => {
    const surface = run.flat();
    return areaOf(surface.filter(isOver)) > MOST_OVER_HOUSE * areaOf(surface) ? [] : surface;
  });
}

/** Height that a tenth of the ground around lies below: a house in a hill stands on its valley side. */
function lowestAround(open: readonly Patch[]): number {
  const sorted = [...open].sort((a, b) => a.y - b.y);
  let left = 0.1 * areaOf(sorted);
  for (const { y, area } of sorted) {
    left -= area;
    if (left <= 0) return y;
  }
  return -Infinity;
}

/** Basements downward, storeys upward from the ground, half storeys between whole ones. */
function namesOf(inside: readonly Level[], buried: (level: Level) => boolean): Map<Level, string> {
  const names = new Map<Level, string>();
  const below = inside.filter(buried).reverse();
  below.forEach((level, i) => names.set(level, below.length === 1 ? 'Basement' : `Basement ${i + 1}`));
  let [whole, last] = [-1, -Infinity];
  for (const level of inside) {
    if (names.has(level)) continue;
    const half = height(level) - last < SEPARATION;
    if (!half) [whole, last] = [whole + 1, height(level)];
    names.set(level, half ? (whole === 0 ? 'Level ½' : `Level ${whole}½`) : whole === 0 ? 'Ground' : `Level ${whole}`);
  }
  return names;
}

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

const squareOf = ({ x, z }: Patch) => `${Math.floor(x / SQUARE)},${Math.floor(z / SQUARE)}`;

const areaOf = (patches: readonly Patch[]) => patches.reduce((sum, { area }) => sum + area, 0);

/** Patches by height class. */
function byHeight(patches: readonly Patch[]): Map<number, Patch[]> {
  const classes = new Map<number, Patch[]>();
  for (const patch of patches) {
    const bin = Math.round(patch.y / BIN);
    const known = classes.get(bin);
    if (known) known.push(patch);
    else classes.set(bin, [patch]);
  }
  return classes;
}

/** Runs of neighbouring height classes, from the lowest up. */
function runsOf(classes: ReadonlyMap<number, Patch[]>): Patch[][][] {
  const runs: Patch[][][] = [];
  let before = -Infinity;
  for (const [bin, patches] of [...classes].sort((a, b) => a[0] - b[0])) {
    if (bin - before > 1) runs.push([]);
    runs.at(-1)!.push(patches);
    before = bin;
  }
  return runs;
}

/** Adds patches up by height; neighbouring height classes are one level. Largest first. */
function levelsOf(patches: readonly Patch[]): Level[] {
  const levels = runsOf(byHeight(patches)).map((run): Level => {
    const areas = run.map(areaOf);
    const peak = run[areas.indexOf(areas.reduce((most, area) => Math.max(most, area)))]!;
    return {
      area: areas.reduce((sum, area) => sum + area, 0),
      peakArea: areaOf(peak),
      peakMoment: peak.reduce((sum, { y, area }) => sum + y * area, 0),
      patches: run.flat(),
    };
  });
  return levels.sort((a, b) => b.area - a.area);
}
