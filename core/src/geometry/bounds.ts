import type { Bounds } from '../document/index.ts';

/** Bounds of positions, three numbers a point. */
export function boundsOf(positions: Float32Array): Bounds {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < positions.length; k += 3)
    for (let axis = 0; axis < 3; axis += 1) {
      min[axis] = Math.min(min[axis]!, positions[k + axis]!);
      max[axis] = Math.max(max[axis]!, positions[k + axis]!);
    }
  return { min, max };
}

/** Bounds of all of them together; null where there are none. */
export function joinBounds(all: readonly Bounds[]): Bounds | null {
  const [first, ...rest] = all;
  if (!first) return null;
  return rest.reduce(
    (sum, { min, max }) => ({
      min: sum.min.map((value, k) => Math.min(value, min[k]!)) as Bounds['min'],
      max: sum.max.map((value, k) => Math.max(value, max[k]!)) as Bounds['max'],
    }),
    first,
  );
}

/** The middle of bounds. */
export const middle = ({ min, max }: Bounds): [number, number, number] => [
  (min[0] + max[0]) / 2,
  (min[1] + max[1]) / 2,
  (min[2] + max[2]) / 2,
];

/** Larger side of the plan extent of positions, in their own unit. */
export function planWidth(positions: Float32Array): number {
  const { min, max } = boundsOf(positions);
  return Math.max(max[0] - min[0], max[2] - min[2]);
}
