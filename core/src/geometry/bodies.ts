import type { Bounds, Vec3 } from '../document/index.ts';
import { samePlace } from './same-place.ts';

/** Triangles that hang together: three numbers a vertex, three vertices a triangle. */
export interface Body {
  positions: Float32Array;
  indices: Uint32Array;
}

/** Bounds of the corners of a body. */
export function boundsOfBody({ positions: p, indices }: Body): Bounds {
  const min: Vec3 = [Infinity, Infinity, Infinity];
  const max: Vec3 = [-Infinity, -Infinity, -Infinity];
  for (const v of indices)
    for (let k = 0; k < 3; k += 1) {
      min[k] = Math.min(min[k]!, p[3 * v + k]!);
      max[k] = Math.max(max[k]!, p[3 * v + k]!);
    }
  return { min, max };
}

/**
 * Joins the corners of triangles.
 * @param indices three vertices a triangle
 * @param place for each vertex the number of the first one at the same place; see `samePlace`
 * @returns a vertex that stands for all that a vertex hangs together with
 */
export function joined(indices: ArrayLike<number>, place: Uint32Array): (vertex: number) => number {
  const root = place.slice();
  const rootOf = (v: number): number => {
    while (root[v] !== v) v = root[v] = root[root[v]!]!;
    return v;
  };
  for (let t = 0; t < indices.length; t += 3)
    for (const k of [1, 2]) root[rootOf(indices[t + k]!)] = rootOf(indices[t]!);
  return rootOf;
}

/** What hangs together by its corners, each on its own. @param place as for {@link joined} */
export function takenApart({ positions, indices }: Body, place = samePlace(positions)): Body[] {
  const rootOf = joined(indices, place);
  const groups = new Map<number, number[]>();
  for (let t = 0; t < indices.length; t += 3) {
    const at = rootOf(indices[t]!);
    let group = groups.get(at);
    if (!group) groups.set(at, (group = []));
    group.push(indices[t]!, indices[t + 1]!, indices[t + 2]!);
  }
  return [...groups.values()].map((group) => ({ positions, indices: Uint32Array.from(group) }));
}

/**
 * What a body encloses: its volume, by the divergence theorem, where it is closed (each edge gone along twice, once either
 * way) with its faces looking out; else nothing.
 * @param place as for {@link joined}
 */
export function enclosedVolume({ positions: p, indices }: Body, place: Uint32Array): number {
  const open = new Set<number>();
  const count = place.length;
  let volume = 0;
  const [x0, y0, z0] = [0, 1, 2].map((k) => p[3 * indices[0]! + k]!) as [number, number, number];
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [indices[t]!, indices[t + 1]!, indices[t + 2]!] as const;
    for (let k = 0; k < 3; k += 1) {
      const [from, to] = [place[corners[k]!]!, place[corners[(k + 1) % 3]!]!];
      if (from === to) continue;
      if (open.delete(to * count + from)) continue;
      const key = from * count + to;
      if (open.has(key)) return 0;
      open.add(key);
    }
    const [a, b, c] = corners.map((v) => [p[3 * v]! - x0, p[3 * v + 1]! - y0, p[3 * v + 2]! - z0]) as [
      number[],
      number[],
      number[],
    ];
    volume +=
      a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
      a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
      a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
  }
  return open.size === 0 ? Math.max(0, volume / 6) : 0;
}
