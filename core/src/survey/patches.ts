import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import type { FloorIndex } from './floor-index.ts';
import { HEAD_ROOM, INSIDE } from './levels.ts';
import type { SolidBodies } from './solid-bodies.ts';

/** Open ground counts up to this far around what is under cover, metres. */
const SURROUNDINGS = 6;

/** A piece of walkable surface with head room, small enough to be under cover or not. */
export interface Patch {
  x: number;
  y: number;
  z: number;
  area: number;
  covered: boolean;
  /** Number of its triangle; patches of one follow each other. */
  face: number;
}

/** Looks at about one point a square metre of every walkable triangle; what is inside of something solid is no floor. */
export function patchesOf(walkable: TriangleSoup, cover: FloorIndex, solid: SolidBodies | null = null): Patch[] {
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
        if (above < Infinity && solid?.contains(x, y + INSIDE, z)) continue;
        patches.push({ x, y, z, area: area / (rows * rows), covered: above < Infinity, face: i });
      }
  }
  return patches;
}

/** Covered places farther apart than this are not one house, metres. */
const APART = 5;
/** What covers less than this share of what the largest house covers is none: a tree, a shelter, a parked car. */
const LEAST_HOUSE = 0.3;

/** The same patches, with only houses counted as cover: a tree over the marsh makes no storey. */
export function houses(patches: readonly Patch[]): Patch[] {
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
export function nearCover(patches: readonly Patch[]): Patch[] {
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
