import type { Vec3 } from '../document/index.ts';

/** A place in plan: x, z. */
export type PlanPoint = readonly [x: number, z: number];

/** Convex hull, counter-clockwise (Andrew 1979, monotone chain); the two ends of points in a row. */
export function hullOf(points: readonly PlanPoint[]): PlanPoint[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const chain = (list: readonly PlanPoint[]) => {
    const out: PlanPoint[] = [];
    for (const p of list) {
      for (;;) {
        const [a, b] = [out.at(-2), out.at(-1)];
        if (!a || !b || (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 1e-9) break;
        out.pop();
      }
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...chain(sorted), ...chain(sorted.reverse())];
}

/** A box that stands upright and is turned as the thing in it is; metres. */
export interface PlanBox {
  middle: Vec3;
  /** Along its longer side in plan, a unit vector that points to higher coordinates: of x, or of z where it lies more along that. */
  axis: PlanPoint;
  /** Its longer side, its height and its shorter side. */
  size: Vec3;
}

/** A box that is turned holds a thing better than the one along the axes only where it is smaller than this part of it. */
const WORTH_TURNING = 0.98;

/**
 * The smallest box about points, by the area that it covers in plan. One of its sides lies along an edge of the hull (Freeman
 * and Shapira 1975).
 * @param points three numbers each, metres; at least one
 */
export function planBoxOf(points: ArrayLike<number>): PlanBox {
  const plan: PlanPoint[] = [];
  let [low, high] = [Infinity, -Infinity];
  for (let o = 0; o < points.length; o += 3) {
    plan.push([points[o]!, points[o + 2]!]);
    low = Math.min(low, points[o + 1]!);
    high = Math.max(high, points[o + 1]!);
  }
  const hull = hullOf(plan);
  const around = hull.length > 0 ? hull : plan;
  const straight = spanOf(around, [1, 0]);
  let turned = straight;
  around.forEach(([x, z], i) => {
    const [nx, nz] = around[(i + 1) % around.length]!;
    const length = Math.hypot(nx - x, nz - z);
    if (!(length > 0)) return;
    const span = spanOf(around, [(nx - x) / length, (nz - z) / length]);
    if (span.area < turned.area) turned = span;
  });
  const { axis, from, to, across } = turned.area < WORTH_TURNING * straight.area ? turned : straight;
  const [a, b] = [(from + to) / 2, (across[0] + across[1]) / 2];
  const middle: Vec3 = [a * axis[0] - b * axis[1], (low + high) / 2, a * axis[1] + b * axis[0]];
  const [along, aside] = [to - from, across[1] - across[0]];
  const longer: PlanPoint = along >= aside ? axis : [-axis[1], axis[0]];
  const main = Math.abs(longer[0]) >= Math.abs(longer[1]) ? longer[0] : longer[1];
  const sign = main < 0 ? -1 : 1;
  return {
    middle,
    axis: [sign * longer[0], sign * longer[1]],
    size: [Math.max(along, aside), high - low, Math.min(along, aside)],
  };
}

/** How far a place is from a box, metres; 0 in it. */
export function distanceToPlanBox({ middle, axis: [ax, az], size }: PlanBox, [x, y, z]: Vec3): number {
  const dx = x - middle[0];
  const dz = z - middle[2];
  const along = Math.max(0, Math.abs(dx * ax + dz * az) - size[0] / 2);
  const above = Math.max(0, Math.abs(y - middle[1]) - size[1] / 2);
  const aside = Math.max(0, Math.abs(dz * ax - dx * az) - size[2] / 2);
  return Math.sqrt(along * along + above * above + aside * aside);
}

/** What points reach along an axis and across it. */
function spanOf(points: readonly PlanPoint[], axis: PlanPoint) {
  let [from, to, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, z] of points) {
    const [a, b] = [x * axis[0] + z * axis[1], z * axis[0] - x * axis[1]];
    [from, to] = [Math.min(from, a), Math.max(to, a)];
    [low, high] = [Math.min(low, b), Math.max(high, b)];
  }
  return { axis, from, to, across: [low, high] as const, area: (to - from) * (high - low) };
}
