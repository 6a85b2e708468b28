import type { Bounds, Vec3 } from '../document/index.ts';

/** Bounds of positions, three numbers a point. */
export function boundsOf(positions: Float32Array): Bounds {
  let [x0, y0, z0, x1, y1, z1] = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (let k = 0; k < positions.length; k += 3) {
    const [x, y, z] = [positions[k]!, positions[k + 1]!, positions[k + 2]!];
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    z0 = Math.min(z0, z);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
    z1 = Math.max(z1, z);
  }
  return { min: [x0, y0, z0], max: [x1, y1, z1] };
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

/** The eight corners of bounds. */
export const cornersOf = ({ min, max }: Bounds): Vec3[] =>
  Array.from({ length: 8 }, (_, i) => [0, 1, 2].map((k) => (i & (1 << k) ? max : min)[k]!) as Vec3);

/** The middle of bounds. */
export const middle = ({ min, max }: Bounds): [number, number, number] => [
  (min[0] + max[0]) / 2,
  (min[1] + max[1]) / 2,
  (min[2] + max[2]) / 2,
];

/** How large bounds are along each axis. */
export const sizesOf = ({ min, max }: Bounds): Vec3 => [max[0] - min[0], max[1] - min[1], max[2] - min[2]];

/** The largest extent of bounds. */
export const largestOf = (bounds: Bounds): number => Math.max(...sizesOf(bounds));

/** From one corner of bounds to the opposite one. */
export const diagonalOf = ({ min, max }: Bounds): number =>
  Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);

/** Larger side of the plan extent of positions, in their own unit. */
export function planWidth(positions: Float32Array): number {
  const { min, max } = boundsOf(positions);
  return Math.max(max[0] - min[0], max[2] - min[2]);
}
