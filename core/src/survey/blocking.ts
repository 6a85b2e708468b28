import { segmentsOf, type PlanCut } from './plan-cut.ts';

/** Everything that a body of this radius bumps into at one storey: the cut lines as loose segments. */
export interface Blocking {
  /** Four numbers a segment: x1, z1, x2, z2. */
  segments: Float64Array;
}

/** Walls, furniture higher than the cut, and glass. Doorways are where no line is. */
export const blockingOf = (plan: PlanCut): Blocking => ({ segments: Float64Array.from(segmentsOf(plan)) });

/** Distance from (x, z) to the nearest blocking line, metres. */
export function clearance({ segments }: Blocking, x: number, z: number): number {
  let best = Infinity;
  for (let i = 0; i < segments.length; i += 4) {
    const ax = segments[i]!;
    const az = segments[i + 1]!;
    const dx = segments[i + 2]! - ax;
    const dz = segments[i + 3]! - az;
    const along = Math.min(1, Math.max(0, ((x - ax) * dx + (z - az) * dz) / (dx * dx + dz * dz || 1)));
    const distance = (x - ax - along * dx) ** 2 + (z - az - along * dz) ** 2;
    if (distance < best) best = distance;
  }
  return Math.sqrt(best);
}

/**
 * Where a step from one point to another ends when walls stand in the way: whole, or sliding along, or not at all.
 * A body that already stands too close may always move away.
 */
export function stepAside(
  blocking: Blocking,
  from: readonly [number, number],
  to: readonly [number, number],
  radius: number,
): [number, number] {
  const before = clearance(blocking, from[0], from[1]);
  const free = (x: number, z: number) => {
    const after = clearance(blocking, x, z);
    return after >= radius || after > before + 1e-9;
  };
  for (const [x, z] of [to, [to[0], from[1]], [from[0], to[1]]] as const)
    if ((x !== from[0] || z !== from[1]) && free(x, z)) return [x, z];
  return [from[0], from[1]];
}
