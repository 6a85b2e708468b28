import type { Bounds, UpAxis, Vec3 } from '../document/index.ts';
import type { SceneModel } from '../format/index.ts';
import { boundsOf, cornerNormal, joinBounds, type Body } from '../geometry/index.ts';
import { bodiesOf, groundOf, heightOf } from './bodies.ts';
import { isInTriangle, LevelBins, type PlanMask, type PartOfPlan } from './plan-mask.ts';

/** Number of the axis in a position. */
export const AXIS: Record<UpAxis, 1 | 2> = { y: 1, z: 2 };
/** Height classes. */
const BINS = 400;
/** Side of a silhouette, points. */
export const SILHOUETTE = 40;

/** A level surface that is large for its model. */
export interface Level {
  height: number;
  area: number;
  /** Where it is in plan; see {@link liesOver}. */
  plan: PlanMask;
}

/** What of a model's shape says which way is up and how large it is, for one axis taken as up. In the file's unit. */
export interface ShapeAlong {
  /** Extent along the axis, and of the plan. */
  height: number;
  plan: [number, number];
  /** Level surfaces, from the lowest up. */
  levels: Level[];
  /** The largest level surface as a share of the plan's rectangle. */
  cover: number;
  /** Nowhere anything over or under anything else: a terrain. */
  heightField: boolean;
  /** What stands on a terrain that lies under all of it: median of the heights; null where there is no such terrain. */
  onLand: number | null;
  /** Many bodies stand on one plate. */
  onPlate: boolean;
  /** How different below and above are, 0…1. */
  lopsided: number;
  /** Distances between the two faces of things that stand upright and are thin: walls. Median; null where there are none. */
  thickness: number | null;
}

export interface NamedSize {
  name: string;
  min: Vec3;
  max: Vec3;
}

export interface Shape {
  along: Record<UpAxis, ShapeAlong>;
  named: NamedSize[];
}

/** Most parts whose names are looked at. */
const MOST_NAMED = 400;

export function measureShape(model: Pick<SceneModel, 'parts'>): Shape {
  const named = model.parts.slice(0, MOST_NAMED).map(({ name, positions }): NamedSize => {
    return { name, ...boundsOf(positions) };
  });
  const bodies = bodiesOf(model.parts);
  const bounds = extent(model.parts);
  return { along: { y: shapeAlong(bodies, bounds, 1), z: shapeAlong(bodies, bounds, 2) }, named };
}

function shapeAlong(bodies: readonly Body[], { min, max }: Bounds, up: 1 | 2): ShapeAlong {
  const height = max[up]! - min[up]!;
  const [u, v] = up === 1 ? [0, 2] : [0, 1];
  const plan: [number, number] = [max[u]! - min[u]!, max[v]! - min[v]!];
  const [upward, downward] = [new LevelBins(), new LevelBins()];
  const place = (p: Float32Array, corner: number): PartOfPlan => [
    (p[corner + u]! - min[u]!) / (plan[0] || 1),
    (p[corner + v]! - min[v]!) / (plan[1] || 1),
  ];
  const profile = new Float64Array(20);
  const upright = [new Map<number, number>(), new Map<number, number>()] as const;
  const normal = new Float64Array(3);
  let [up1, down1, total] = [0, 0, 0];
  const span = height || 1;
  const { land, plate } = groundOf(bodies, up, plan);
  for (const body of bodies) {
    const { positions: p, indices } = body;
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
      cornerNormal(p, a, b, c, normal);
      const area = Math.hypot(normal[0]!, normal[1]!, normal[2]!) / 2;
      if (!(area > 0)) continue;
      total += area;
      const cosine = normal[up]! / (2 * area);
      const middle = ((p[a + up]! + p[b + up]! + p[c + up]!) / 3 - min[up]!) / span;
      profile[Math.min(19, Math.floor(middle * 20))]! += area;
      if (cosine > 0.02) up1 += area * cosine;
      else if (cosine < -0.02) down1 -= area * cosine;
      // What is level of a hill is no floor of what stands on it.
      if (land.has(body)) continue;
      const side = cosine > 0.98 ? upward : cosine < -0.98 ? downward : null;
      if (side) side.add(Math.round(middle * BINS), area, [place(p, a), place(p, b), place(p, c)]);
      else if (Math.abs(cosine) < 0.05)
        for (const [k, axis] of [u, v].entries()) {
          if (Math.abs(normal[axis]!) < 1.96 * area) continue;
          const at = Math.round(((p[a + axis]! - min[axis]!) / (plan[k] || 1)) * 2000);
          upright[k as 0 | 1].set(at, (upright[k as 0 | 1].get(at) ?? 0) + area);
        }
    }
  }
  const levels = levelsOf(upward.largest >= downward.largest ? upward : downward, min[up]!, span);
  const largest = Math.max(0, ...levels.map(({ area }) => area));
  let odd = 0;
  for (let i = 0; i < 10; i += 1) odd += Math.abs(profile[i]! - profile[19 - i]!);
  return {
    height,
    plan,
    levels: levels.filter(({ area }) => area > 0.04 * largest),
    cover: largest / (plan[0] * plan[1] || 1),
    heightField:
      Math.min(up1, down1) < 0.001 * Math.max(up1, down1) &&
      Math.max(up1, down1) > 0.8 * plan[0] * plan[1] &&
      largest < 0.6 * total,
    onLand: land.size > 0 ? median(bodies.filter((body) => !land.has(body)).map((body) => heightOf(body, up))) : null,
    onPlate: plate,
    lopsided: odd / (total || 1),
    thickness: thicknessOf(upright, plan),
  };
}

const extent = (parts: SceneModel['parts']) => joinBounds(parts.map(({ positions }) => boundsOf(positions)))!;

/**
 * Where there is more that is level than just below and above: a surface may lie on the border of two height classes, and
 * treads lead from one floor to the next without a gap.
 */
function levelsOf(bins: LevelBins, low: number, span: number): Level[] {
  const levels: Level[] = [];
  const at = (i: number) => bins.areas[i] ?? 0;
  for (let i = 0; i <= BINS; i += 1)
    if (at(i) > 0 && at(i) >= at(i - 1) && at(i) > at(i + 1))
      levels.push({
        height: low + (i / BINS) * span,
        area: at(i - 1) + at(i) + at(i + 1),
        plan: bins.planOf([i - 1, i, i + 1]),
      });
  return levels;
}

const median = (values: readonly number[]): number | null =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? null;

/** The median distance between neighbouring upright planes that are near each other for the size of the plan. */
function thicknessOf(upright: readonly ReadonlyMap<number, number>[], plan: readonly [number, number]): number | null {
  const distances: number[] = [];
  upright.forEach((planes, k) => {
    const most = Math.max(0, ...planes.values());
    const at = [...planes]
      .filter(([, area]) => area > 0.03 * most)
      .map(([place]) => place)
      .sort((a, b) => a - b);
    for (let i = 1; i < at.length; i += 1)
      if (at[i]! - at[i - 1]! < 120) distances.push(((at[i]! - at[i - 1]!) / 2000) * plan[k]!);
  });
  return median(distances);
}

/**
 * What a model looks like from the front with an axis up, as rows of hexadecimal digits from the top: a bit a point, set
 * where there is something. Height and width keep their proportion; the longer one fills the square.
 */
export function silhouetteOf({ parts }: Pick<SceneModel, 'parts'>, up: UpAxis): string[] {
  const axis = AXIS[up];
  const { min, max } = extent(parts);
  const scale = Math.max(max[0]! - min[0]!, max[axis]! - min[axis]!) || 1;
  const grid = new Uint8Array(SILHOUETTE * SILHOUETTE);
  const [left, bottom] = [min[0]!, min[axis]!];
  const slack = scale / SILHOUETTE;
  const place = (value: number) => Math.min(SILHOUETTE - 1, Math.floor((value / scale) * SILHOUETTE));
  for (const { positions: p, indices } of parts)
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
      const [ax, bx, cx] = [p[a]! - left, p[b]! - left, p[c]! - left];
      const [ay, by, cy] = [p[a + axis]! - bottom, p[b + axis]! - bottom, p[c + axis]! - bottom];
      const [x0, x1] = [place(Math.min(ax, bx, cx)), place(Math.max(ax, bx, cx))];
      const [y0, y1] = [place(Math.min(ay, by, cy)), place(Math.max(ay, by, cy))];
      const whole = x1 - x0 < 2 || y1 - y0 < 2;
      for (let y = y0; y <= y1; y += 1)
        for (let x = x0; x <= x1; x += 1) {
          const at = (SILHOUETTE - 1 - y) * SILHOUETTE + x;
          if (grid[at] === 1) continue;
          if (whole || isInTriangle([ax, bx, cx], [ay, by, cy], (x + 0.5) * slack, (y + 0.5) * slack, slack))
            grid[at] = 1;
        }
    }
  return Array.from({ length: SILHOUETTE }, (_, row) => {
    let digits = '';
    for (let x = 0; x < SILHOUETTE; x += 4)
      digits += [0, 1, 2, 3].reduce((sum, k) => 2 * sum + grid[row * SILHOUETTE + x + k]!, 0).toString(16);
    return digits;
  });
}
