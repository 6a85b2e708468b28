import type { ScenePart, SceneRoom } from '../scene-model.ts';

/** Steeper than this is no floor of a space. */
const LEVEL = 0.7;
const key = (x: number, z: number) => `${Math.round(x * 1000)},${Math.round(z * 1000)}`;

/**
 * Where a closed volume stands: the area, outline and height of its underside.
 * @returns null where nothing of it faces down
 */
export function footprint(
  faces: readonly Pick<ScenePart, 'positions' | 'indices'>[],
): Pick<SceneRoom, 'elevation' | 'area' | 'outline'> | null {
  let [area, lowest] = [0, Infinity];
  const edges = new Map<string, { from: string; to: string; x: number; z: number }>();
  for (const { positions: p, indices } of faces)
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
      const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
      const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
      const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
      if (n[1] > -LEVEL * Math.hypot(...n)) continue;
      area -= n[1] / 2;
      lowest = Math.min(lowest, p[a + 1]!, p[b + 1]!, p[c + 1]!);
      for (const [from, to] of [
        [a, b],
        [b, c],
        [c, a],
      ] as const) {
        const [k, l] = [key(p[from]!, p[from + 2]!), key(p[to]!, p[to + 2]!)];
        // An edge that is walked both ways lies inside.
        if (!edges.delete(`${l}>${k}`)) edges.set(`${k}>${l}`, { from: k, to: l, x: p[from]!, z: p[from + 2]! });
      }
    }
  if (area <= 0) return null;
  return { elevation: lowest, area, outline: longestLoop([...edges.values()]) };
}

function longestLoop(edges: { from: string; to: string; x: number; z: number }[]): number[] {
  const next = new Map(edges.map((edge) => [edge.from, edge]));
  let best: number[] = [];
  while (next.size > 0) {
    const loop: number[] = [];
    let edge = next.values().next().value;
    while (edge) {
      next.delete(edge.from);
      loop.push(edge.x, edge.z);
      edge = next.get(edge.to);
    }
    if (loop.length > best.length) best = loop;
  }
  return best;
}
