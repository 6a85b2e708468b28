import type { Point } from './point.ts';
import { TEXTURES, type TextureName } from './textures.ts';

/** A number 0…1 that a place decides. */
function scattered(p: Point, salt: number): number {
  let h = salt;
  for (const value of p) h = Math.imul(h ^ Math.round(value * 1000), 0x9e3779b1) ^ (h >>> 13);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/**
 * Where the picture of a flat face lies: two numbers a corner. Timber runs along the longest edge, every board from
 * another place of the picture.
 */
export function layOn(name: TextureName, corners: readonly Point[], normal: Point): number[] {
  const { covers, laying } = TEXTURES[name];
  if (laying === 'card') return [0, 1, 1, 1, 1, 0, 0, 0];
  if (laying === 'plan') return corners.flatMap(([x, , z]) => [x / covers, z / covers]);
  if (laying === 'box') {
    const facing = normal.map(Math.abs);
    const [a, b] = facing[1]! >= Math.max(facing[0]!, facing[2]!) ? [0, 2] : facing[0]! >= facing[2]! ? [2, 1] : [0, 1];
    return corners.flatMap((p) => [p[a]! / covers, -p[b]! / covers]);
  }
  let along: Point = [1, 0, 0];
  let longest = -1;
  corners.forEach((p, i) => {
    const q = corners[(i + 1) % corners.length]!;
    const edge: Point = [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
    const length = Math.hypot(...edge);
    if (length <= longest + 1e-6) return;
    longest = length;
    along = [edge[0] / (length || 1), edge[1] / (length || 1), edge[2] / (length || 1)];
  });
  const aside: Point = [
    normal[1] * along[2] - normal[2] * along[1],
    normal[2] * along[0] - normal[0] * along[2],
    normal[0] * along[1] - normal[1] * along[0],
  ];
  const origin = corners[0]!;
  const [u0, v0] = [scattered(origin, 17), scattered(origin, 91)];
  return corners.flatMap((p) => {
    const d: Point = [p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]];
    const dot = (axis: Point) => d[0] * axis[0] + d[1] * axis[1] + d[2] * axis[2];
    return [u0 + dot(along) / covers, v0 + dot(aside) / covers];
  });
}
