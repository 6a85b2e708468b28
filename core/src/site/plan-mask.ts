/** Squares of a plan along each side. */
const SIDE = 64;

/** A place of a plan, each number 0…1. */
export type PartOfPlan = readonly [number, number];

/** Which squares of a plan something lies in, a bit each. */
export type PlanMask = Uint32Array;

type Three = [number, number, number];

const square = (place: number): number => Math.max(0, Math.min(SIDE - 1, Math.floor(place)));

/** Is a point in a triangle, or within half a slack of it? */
export function isInTriangle(xs: Readonly<Three>, ys: Readonly<Three>, x: number, y: number, slack = 0): boolean {
  const side = (i: 0 | 1 | 2, j: 0 | 1 | 2) => {
    const [dx, dy] = [xs[j] - xs[i], ys[j] - ys[i]];
    return ((x - xs[i]) * dy - (y - ys[i]) * dx) / (Math.hypot(dx, dy) || 1);
  };
  const sides = [side(0, 1), side(1, 2), side(2, 0)];
  return sides.every((value) => value <= slack / 2) || sides.every((value) => value >= -slack / 2);
}

/** Level surfaces by classes of height: how much of each there is, and where. */
export class LevelBins {
  /** Area by class. */
  readonly areas: number[] = [];
  private readonly plans = new Map<number, PlanMask>();

  /** @param bin class of height @param corners of a triangle */
  add(bin: number, area: number, corners: readonly [PartOfPlan, PartOfPlan, PartOfPlan]): void {
    this.areas[bin] = (this.areas[bin] ?? 0) + area;
    let plan = this.plans.get(bin);
    if (!plan) this.plans.set(bin, (plan = new Uint32Array((SIDE * SIDE) / 32)));
    const xs = corners.map(([x]) => x * SIDE) as Three;
    const ys = corners.map(([, y]) => y * SIDE) as Three;
    const [x0, x1] = [square(Math.min(...xs)), square(Math.max(...xs))];
    const [y0, y1] = [square(Math.min(...ys)), square(Math.max(...ys))];
    // What is no wider than two squares one way lies in all of them.
    const all = x1 - x0 < 2 || y1 - y0 < 2;
    for (let y = y0; y <= y1; y += 1)
      for (let x = x0; x <= x1; x += 1) {
        if (!all && !isInTriangle(xs, ys, x + 0.5, y + 0.5)) continue;
        const at = y * SIDE + x;
        plan[at >> 5]! |= 1 << (at & 31);
      }
  }

  /** The largest area of a class. */
  get largest(): number {
    return this.areas.reduce((most, area) => Math.max(most, area ?? 0), 0);
  }

  /** Where several classes are together. */
  planOf(bins: readonly number[]): PlanMask {
    const out = new Uint32Array((SIDE * SIDE) / 32);
    for (const bin of bins) this.plans.get(bin)?.forEach((word, i) => (out[i]! |= word));
    return out;
  }
}

/** Share of the smaller of two that lies over or under the other, from which they are floors of one house. */
const OVER = 0.4;

/** Do two levels lie above each other, not beside each other? */
export function liesOver(one: PlanMask, other: PlanMask): boolean {
  let [both, here, there] = [0, 0, 0];
  for (let i = 0; i < one.length; i += 1) {
    both += bits(one[i]! & other[i]!);
    here += bits(one[i]!);
    there += bits(other[i]!);
  }
  return both >= OVER * Math.min(here, there);
}

/** How many bits of 32 are set (Warren 2012, Hacker’s Delight, figure 5-2). */
function bits(word: number): number {
  let x = word - ((word >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  return Math.imul((x + (x >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
