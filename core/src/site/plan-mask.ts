/** Squares of a plan along each side. */
const SIDE = 64;

/** A place of a plan, each number 0…1. */
export type PartOfPlan = readonly [number, number];

/** Which squares of a plan something lies in, a bit each. */
export type PlanMask = Uint32Array;

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
    const [a, b, c] = corners;
    const widest = Math.max(...[0, 1].map((k) => Math.max(a[k]!, b[k]!, c[k]!) - Math.min(a[k]!, b[k]!, c[k]!)));
    const rows = Math.max(1, Math.ceil(widest * SIDE * 1.5));
    for (let i = 0; i < rows; i += 1)
      for (let j = 0; i + j < rows; j += 1) {
        const [u, v] = [(i + 1 / 3) / rows, (j + 1 / 3) / rows];
        const at = (k: 0 | 1) => Math.min(SIDE - 1, Math.floor((a[k] + (b[k] - a[k]) * u + (c[k] - a[k]) * v) * SIDE));
        const square = at(1) * SIDE + at(0);
        plan[square >> 5]! |= 1 << (square & 31);
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
