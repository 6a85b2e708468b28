import type { Bounds, Lens, Vec3 } from '../document/index.ts';

/** How near things may come to an eye that is inside a scene, metres. */
const NEAREST = 0.08;
/** A small thing is looked at from nearer: this part of its size. */
const NEAREST_PART = 0.004;
/** What is drawn is never thinner than this, as far over near. */
const THINNEST = 1.0001;

/**
 * Distances between which everything of a scene lies as seen from a place, metres: as tight as it goes, so that what is
 * drawn into a depth buffer neither flickers nor is cut off, for a ring as for a landscape.
 * @param cuts what is to be cut away nevertheless
 */
export function depthRange(
  [x, y, z]: Vec3,
  { min, max }: Bounds,
  { nearCut = 0, farCut = Infinity }: Pick<Lens, 'nearCut' | 'farCut'> = {},
): { near: number; far: number } {
  const size = Math.hypot(...([0, 1, 2] as const).map((k) => max[k] - min[k]));
  const outside = Math.hypot(...[x, y, z].map((value, k) => Math.max(min[k]! - value, 0, value - max[k]!)));
  const farthest = Math.hypot(
    ...[x, y, z].map((value, k) => Math.max(Math.abs(value - min[k]!), Math.abs(value - max[k]!))),
  );
  const near = Math.max(Math.min(NEAREST, NEAREST_PART * size), 0.5 * outside);
  const nearest = Math.max(near, nearCut, 1e-5);
  return { near: nearest, far: Math.max(Math.min(Math.max(1.05 * farthest, 2 * near), farCut), nearest * THINNEST) };
}
