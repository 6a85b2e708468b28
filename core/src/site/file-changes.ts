import type { Bounds, Placement, Vec3 } from '../document/index.ts';
import { placeBounds } from './placement.ts';

/** What a newer file of a model has changed, in the project's metres. */
export interface FileChanges {
  /** How far the middle of the whole has moved. */
  moved: Vec3;
  /** How much larger it is along each axis; negative where it is smaller. */
  grew: Vec3;
  /** Triangles more; negative where there are fewer. */
  triangles: number;
  /** Names of parts that are new, and of those that are there no more; empty where those before are not known. */
  came: string[];
  went: string[];
}

interface Measured {
  bounds: Bounds;
  triangles: number;
  /** Names of its parts, where they are known. */
  names?: readonly string[] | null;
}

/**
 * Files of one model lie by their own coordinates, so that nothing moves because something else came or went. What has
 * moved all the same, the file itself has moved.
 */
export function changesOfFile(before: Measured, after: Measured, placement: Placement): FileChanges {
  const [old, now] = [placeBounds(before.bounds, placement), placeBounds(after.bounds, placement)];
  const each = (value: (k: 0 | 1 | 2) => number) => ([0, 1, 2] as const).map(value) as Vec3;
  return {
    moved: each((k) => (now.min[k] + now.max[k] - old.min[k] - old.max[k]) / 2),
    grew: each((k) => now.max[k] - now.min[k] - (old.max[k] - old.min[k])),
    triangles: after.triangles - before.triangles,
    came: namesOnlyIn(after.names, before.names),
    went: namesOnlyIn(before.names, after.names),
  };
}

function namesOnlyIn(names: Measured['names'], others: Measured['names']): string[] {
  if (!names || !others) return [];
  const known = new Set(others);
  return [...new Set(names)].filter((name) => !known.has(name));
}

/** The placement with which the middle of a newer file lies where the one before did, for files that moved as a whole. */
export const asBefore = ({ moved }: Pick<FileChanges, 'moved'>, placement: Placement): Placement => ({
  ...placement,
  position: placement.position.map((value, k) => value - moved[k]!) as Vec3,
});
