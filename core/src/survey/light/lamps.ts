import type { SceneModel } from '../../format/index.ts';

/** A small source of light. */
export interface Lamp {
  position: [number, number, number];
  /** Linear colour times strength. */
  color: [number, number, number];
}

/** Glowing faces nearer than this belong to one lamp, metres. */
const CLUSTER = 0.4;
/** Watts of nothing in particular: strength that makes a glowing bulb light its table like a lamp does. */
const STRENGTH = 1.1;

/** Finds lamps: clusters of faces whose material gives off light. */
export function findLamps(model: SceneModel): Lamp[] {
  const clusters = new Map<string, { sum: [number, number, number]; count: number; glow: [number, number, number] }>();
  for (const part of model.parts) {
    const { emissive } = model.materials[part.material]!;
    if (Math.max(...emissive) < 0.05) continue;
    for (let v = 0; v < part.positions.length; v += 3) {
      const [x, y, z] = [part.positions[v]!, part.positions[v + 1]!, part.positions[v + 2]!];
      const key = [x, y, z].map((value) => Math.round(value / CLUSTER)).join(',');
      const cluster = clusters.get(key) ?? { sum: [0, 0, 0], count: 0, glow: emissive };
      cluster.sum[0] += x;
      cluster.sum[1] += y;
      cluster.sum[2] += z;
      cluster.count += 1;
      clusters.set(key, cluster);
    }
  }
  const lamps: (Lamp & { count: number })[] = [];
  for (const { sum, count, glow } of clusters.values()) {
    const at: [number, number, number] = [sum[0] / count, sum[1] / count, sum[2] / count];
    // A lamp on the border of two cells is still one lamp.
    const near = lamps.find((lamp) => Math.hypot(...lamp.position.map((p, k) => p - at[k]!)) < CLUSTER);
    if (near) {
      const total = near.count + count;
      near.position = near.position.map((p, k) => (p * near.count + at[k]! * count) / total) as Lamp['position'];
      near.count = total;
    } else lamps.push({ position: at, color: glow.map((g) => g * STRENGTH) as Lamp['color'], count });
  }
  return lamps.map(({ position, color }) => ({ position, color }));
}
