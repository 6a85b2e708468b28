import type { Bounds, StoreyChange } from '../document/index.ts';
import type { FoundStorey } from './storeys.ts';

/** A correction belongs to the storey that is found within this height of it, metres: nearer storeys are one. */
export const CORRECTION_REACH = 0.3;

/** Where a site is in plan: [minX, minZ, maxX, maxZ], metres. */
export const planExtent = ({ min, max }: Bounds): FoundStorey['extent'] => [min[0], min[2], max[0], max[2]];

/**
 * Storeys as people want them: moved to another height, left out, added. A correction of a storey that is not found
 * any more waits until it is.
 * @returns from the lowest up
 */
export function correctStoreys(
  found: readonly FoundStorey[],
  changes: readonly StoreyChange[],
  bounds: Bounds,
): FoundStorey[] {
  const kept = found.flatMap((storey) => {
    const change = changes.find(
      (one) => one.found !== null && Math.abs(one.found - storey.elevation) < CORRECTION_REACH,
    );
    if (!change) return [storey];
    return change.elevation === null ? [] : [{ ...storey, elevation: change.elevation }];
  });
  // An added storey may be anywhere in the house.
  const extent = joinExtents(found.map((storey) => storey.extent));
  const added = changes.flatMap(({ found: at, elevation }): FoundStorey[] =>
    at === null && elevation !== null
      ? [{ name: 'Added storey', elevation, area: 0, extent: extent ?? planExtent(bounds) }]
      : [],
  );
  return [...kept, ...added].sort((a, b) => a.elevation - b.elevation);
}

/** The plan extent of some plan extents together; null where there are none. */
export function joinExtents(extents: readonly FoundStorey['extent'][]): FoundStorey['extent'] | null {
  if (extents.length === 0) return null;
  const side = (k: number, pick: (...values: number[]) => number) => pick(...extents.map((extent) => extent[k]!));
  return [side(0, Math.min), side(1, Math.min), side(2, Math.max), side(3, Math.max)];
}
