import { MeshoptSimplifier } from 'meshoptimizer';

/** What a vertex shows counts this much against its place: a step of light of one is as bad as half the mesh's size. */
const SHOWN_WEIGHT = 0.5;
/** Many small bodies cannot be thinned with care to fewer than their corners: then what is near is merged. */
const STUCK = 1.3;

/**
 * Thins a mesh with care: flat faces and even light go first, edges and openings stay (quadric errors with attributes:
 * Garland & Heckbert 1998). Where that leads nowhere near the target, what is near each other is merged, roughly.
 * @param positions three numbers a vertex
 * @param shown four numbers a vertex: what it shows, about 0…1
 * @param target indices wanted, about
 * @returns indices of the same vertices
 */
export async function thinMesh(
  indices: Uint32Array,
  positions: Float32Array,
  shown: Float32Array,
  target: number,
): Promise<Uint32Array> {
  await MeshoptSimplifier.ready;
  const weights = [SHOWN_WEIGHT, SHOWN_WEIGHT, SHOWN_WEIGHT, SHOWN_WEIGHT];
  const [careful] = MeshoptSimplifier.simplifyWithAttributes(indices, positions, 3, shown, 4, weights, null, target, 1);
  if (careful.length <= STUCK * target) return careful;
  return MeshoptSimplifier.simplifySloppy(indices, positions, 3, null, target, 1)[0];
}

/**
 * Shares a budget out among pieces: whatever is smaller than the share is kept whole, and what it leaves goes to the
 * others. So a house on a hill of a million triangles stays a house.
 * @param counts triangles of the pieces
 * @returns the share of each that is larger
 */
export function shareOf(counts: readonly number[], budget: number): number {
  const sorted = [...counts].sort((a, b) => a - b);
  let left = budget;
  for (const [i, count] of sorted.entries()) {
    const share = left / (sorted.length - i);
    if (count > share) return share;
    left -= count;
  }
  return Infinity;
}
