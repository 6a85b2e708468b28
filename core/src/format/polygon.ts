import earcut from 'earcut';
import { longestAxis } from '../geometry/index.ts';

/**
 * Cuts a flat polygon of any shape into triangles that turn the same way. Concave corners and outlines that reach
 * holes by a cut line are kept: no triangle lies outside the polygon (earcut).
 * @param points x, y, z of the corners in their order round
 * @returns corner numbers, three a triangle; empty where the polygon has no area
 */
export function cutPolygon(points: ArrayLike<number>): number[] {
  const count = points.length / 3;
  // Newell's normal, against the first corner: right for concave and slightly bent polygons, near and far.
  const normal = [0, 0, 0];
  for (let i = 0; i < count; i += 1) {
    const [a, b] = [3 * i, 3 * ((i + 1) % count)];
    for (let k = 0; k < 3; k += 1) {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      normal[k]! +=
        (points[a + u]! - points[u]!) * (points[b + v]! - points[v]!) -
        (points[b + u]! - points[u]!) * (points[a + v]! - points[v]!);
    }
  }
  return cutAlong(points, normal, count);
}

function cutAlong(points: ArrayLike<number>, normal: readonly number[], count: number): number[] {
  const size = Math.hypot(...normal);
  if (count < 3 || !(size > 0)) return [];
  if (count === 3) return [0, 1, 2];
  const axis = longestAxis(normal);
  const [u, v] = normal[axis]! > 0 ? [(axis + 1) % 3, (axis + 2) % 3] : [(axis + 2) % 3, (axis + 1) % 3];
  // Against the first corner, so that far coordinates keep their digits.
  const flat = Array.from({ length: 2 * count }, (_, i) => {
    const k = i % 2 === 0 ? u : v;
    return points[3 * (i >> 1) + k]! - points[k]!;
  });
  const area = (a: number, b: number, c: number) =>
    (flat[2 * b]! - flat[2 * a]!) * (flat[2 * c + 1]! - flat[2 * a + 1]!) -
    (flat[2 * c]! - flat[2 * a]!) * (flat[2 * b + 1]! - flat[2 * a + 1]!);
  if (count === 4) {
    if (area(0, 1, 2) > 0 && area(0, 2, 3) > 0) return [0, 1, 2, 0, 2, 3];
    if (area(1, 2, 3) > 0 && area(1, 3, 0) > 0) return [1, 2, 3, 1, 3, 0];
  }
  const triangles = earcut(flat);
  // All in the polygon's own sense.
  for (let i = 0; i < triangles.length; i += 3)
    if (area(triangles[i]!, triangles[i + 1]!, triangles[i + 2]!) < 0)
      [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2]!, triangles[i + 1]!];
  return triangles;
}
