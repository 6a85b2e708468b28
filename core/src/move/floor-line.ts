import type { Walker } from '../document/index.ts';
import type { Footing } from '../survey/index.ts';

/** Spacing of the stations at which floors are looked for, metres. */
export const SPACING = 0.05;
/** A gap in the floor up to this wide is walked over without a thought: a joint between boards. Metres. */
export const JOINT = 0.15;
/** A step this much higher than the walker takes is still taken: files keep 32-bit coordinates. Metres. */
export const STEP_SLACK = 0.002;
/** Surfaces nearer to each other than this are one. Metres. */
const SAME_HEIGHT = 0.005;
/** A level floor differs by no more than its numbers do, metres. */
const SAME_FLOOR = 1e-6;
/** Less headroom than this is no way for a standing person, only what lies under a table. Metres. */
export const CRAWL = 1.2;

/**
 * What a way costs, so that the cheapest is the one a person means. Unit: metres of rise. A break is dearer than any
 * stair; going on at a height over a hole is cheaper than two falls; what lies under a table or a slab is dear to walk
 * along, so that a wide slab is climbed onto and a table is not. A node of which only the storey is known never makes
 * anyone fall off a stair.
 */
const COST = {
  break: 10,
  breakRise: 10,
  gapMetre: 3,
  joint: 0.02,
  lowMetre: 2,
  crawlMetre: 10,
  /** Off the surface that a node was put on, per metre beyond the slack, up to the most; less where only its storey is known. */
  anchor: 8,
  anchorSlack: 0.3,
  anchorMost: 30,
  looseMost: 12,
} as const;
/** Ways that hang over a hole at the same time; those that could not become the best are dropped. */
const MOST_HANGING = 24;

/** Why there is no way of walking on. */
export type GapReason = 'no floor' | 'step' | 'headroom';

/** A stretch of a path where a walker could not walk. */
export interface FloorGap {
  reason: GapReason;
  /** Stations, metres. */
  from: number;
  to: number;
  /** Length without floor, height of the step, or the least headroom, metres. */
  size: number;
}

/** A surface on the way. */
interface Stand {
  station: number;
  y: number;
  headroom: number;
  cost: number;
  before: Stand | null;
  /** Came here by a step or over a gap that no walker takes. */
  broken: boolean;
  /** No surface: the path begins in the air. */
  air?: true;
}

/** A way that has left a surface and hangs over what follows, at the height it had. */
interface Hanging {
  stand: Stand;
  /** Of the way so far, with what hanging has cost. */
  cost: number;
}

export interface FloorLine {
  /** For each station the height stood on; NaN over gaps and joints. */
  heights: Float64Array;
  gaps: FloorGap[];
}

/** A path in plan, by station. */
export interface PlanLine {
  length: number;
  pointAt(station: number, out: Float64Array): void;
  pointsAt(stations: ArrayLike<number>, out: Float64Array): void;
}

/** A node's place on the path and the height of the surface that it was put on. */
export interface Anchor {
  station: number;
  y: number;
  /** Only the height of its storey is known. */
  loose: boolean;
}

/**
 * The best way through all floors under a path, found for the whole path at once: stations × surfaces, joined by steps
 * that the walker takes (Viterbi's shortest path). The same both ways round.
 * @param stations evenly spaced over the path, both ends included
 * @param anchors of the nodes, by rising station; the first says at which height the path starts
 * @param closed the path comes back to the surface it began on
 */
export function findFloorLine(
  line: PlanLine,
  stations: Float64Array,
  footing: Footing,
  walker: Pick<Walker, 'height' | 'step'>,
  anchors: readonly Anchor[],
  closed: boolean,
): FloorLine {
  return new FloorSearch(line, stations, footing, walker, anchors, closed).run();
}

class FloorSearch {
  private readonly points: Float64Array;
  private readonly anchorAt = new Map<number, Anchor>();
  private readonly point = new Float64Array(2);
  private readonly spacing: number;
  private readonly start: number;
  /** What there is to stand on at each station; asked for again and again, looked up once. */
  private readonly surfaces: number[][];
  /** The same between stations: searches halve the same stretches again and again. */
  private readonly between = new Map<number, readonly number[]>();

  constructor(
    private readonly line: PlanLine,
    private readonly stations: Float64Array,
    private readonly footing: Footing,
    private readonly walker: Pick<Walker, 'height' | 'step'>,
    anchors: readonly Anchor[],
    private readonly closed: boolean,
  ) {
    this.points = new Float64Array(2 * stations.length);
    line.pointsAt(stations, this.points);
    const { points } = this;
    this.surfaces = Array.from(stations, (_, i) => footing.floors.surfacesAt(points[2 * i]!, points[2 * i + 1]!));
    const last = stations.length - 1;
    this.spacing = line.length / last;
    for (const anchor of anchors) this.anchorAt.set(Math.round((anchor.station / line.length) * last), anchor);
    this.start = anchors[0]?.y ?? 0;
  }

  run(): FloorLine {
    const { stations } = this;
    const last = stations.length - 1;
    let here: Stand[] = this.standsAt(0);
    if (this.closed && here.length > 1) {
      const off = (stand: Stand) => Math.abs(stand.y - this.start);
      here = [here.reduce((best, stand) => (off(stand) < off(best) ? stand : best))];
    }
    for (const stand of here) stand.cost += this.anchorCost(0, stand.y);
    const home = this.closed ? here[0]?.y : undefined;
    let hanging: Hanging[] = [];
    if (!here.some((stand) => Math.abs(stand.y - this.start) <= SAME_HEIGHT)) {
      // The path begins in the air, at the height it was drawn at; perhaps only on a joint between boards.
      const stand: Stand = {
        station: 0,
        y: this.start,
        headroom: Infinity,
        cost: 0,
        before: null,
        broken: false,
        air: true,
      };
      hanging = [{ stand, cost: 0 }];
    }
    for (let i = 1; i <= last; i += 1) {
      let next = this.standsAt(i);
      if (i === last && home !== undefined) {
        const same = next.filter((stand) => Math.abs(stand.y - home) < STEP_SLACK);
        if (same.length > 0) next = same;
      }
      for (const stand of next) this.reach(stand, i, here, hanging);
      hanging = this.hang(i, here, next, hanging);
      here = next;
    }
    const ends = [...here.map((stand) => ({ stand, cost: stand.cost }))];
    for (const { stand, cost } of hanging) {
      const joint =
        !stand.air &&
        this.line.length - stand.station <= JOINT + this.spacing &&
        !here.some((onward) => this.jump(stand, onward) < 2 * SAME_HEIGHT);
      const ending = joint ? stand.cost + COST.joint : cost + COST.break;
      ends.push({ stand, cost: ending + this.anchorCost(last, stand.y) });
    }
    const end = ends.reduce<(typeof ends)[number] | null>(
      (best, one) => (best && best.cost <= one.cost ? best : one),
      null,
    );
    return this.trace(end?.stand ?? null);
  }

  /** What there is to stand on at any place of the path. */
  private surfacesAt(station: number): readonly number[] {
    let known = this.between.get(station);
    if (!known) {
      this.line.pointAt(station, this.point);
      known = this.footing.floors.surfacesAt(this.point[0]!, this.point[1]!);
      this.between.set(station, known);
    }
    return known;
  }

  /** The surfaces at a station that a person could be on, each with its own cost. */
  private standsAt(i: number): Stand[] {
    const [x, z] = [this.points[2 * i]!, this.points[2 * i + 1]!];
    return this.surfaces[i]!.map((y) => {
      const headroom = this.footing.headroom(x, z, y, this.walker.height);
      const low = headroom >= this.walker.height - STEP_SLACK ? 0 : headroom >= CRAWL ? COST.lowMetre : COST.crawlMetre;
      return { station: this.stations[i]!, y, headroom, cost: low * this.spacing, before: null, broken: false };
    });
  }

  private anchorCost(i: number, y: number): number {
    const anchor = this.anchorAt.get(i);
    if (anchor === undefined) return 0;
    const off = Math.max(0, Math.abs(y - anchor.y) - COST.anchorSlack);
    return Math.min(anchor.loose ? COST.looseMost : COST.anchorMost, COST.anchor * off);
  }

  /** Finds the cheapest way onto a surface: from one beside it, or out of the air. */
  private reach(stand: Stand, i: number, here: readonly Stand[], hanging: readonly Hanging[]): void {
    const step = this.walker.step + STEP_SLACK;
    let best = Infinity;
    const take = (before: Stand, cost: number, broken: boolean) => {
      if (cost >= best) return;
      best = cost;
      stand.before = before;
      stand.broken = broken;
    };
    for (const from of here) {
      const rise = Math.abs(stand.y - from.y);
      // What is dearer than the best even as a step need not be looked at closely.
      if (from.cost + rise >= best) continue;
      const passes = rise <= step || this.jump(from, stand) <= step;
      if (passes) take(from, from.cost + rise, false);
      else take(from, from.cost + COST.break + COST.breakRise * rise, true);
    }
    for (const { stand: from, cost } of hanging) {
      const rise = Math.abs(stand.y - from.y);
      // The same of a joint: as a break it is dearer still.
      const asJoint = from.cost + COST.joint + rise;
      if (asJoint >= best) continue;
      const joint = rise <= step && this.openLength(from, stand) <= JOINT;
      if (joint) take(from, asJoint, false);
      else take(from, cost + COST.break + COST.breakRise * rise, true);
    }
    stand.cost += best + this.anchorCost(i, stand.y);
  }

  /**
   * All that could still be the best over a hole when station i has been passed: what stood at the one before it, and
   * what hung already. Where there is a floor at that height, hanging is as dear as crawling: a table is no hole.
   */
  private hang(i: number, here: readonly Stand[], next: readonly Stand[], hanging: readonly Hanging[]): Hanging[] {
    const station = this.stations[i]!;
    const reach = this.walker.step + STEP_SLACK;
    const all: Hanging[] = [];
    const add = (stand: Stand, before: number) => {
      const floored = next.some(({ y }) => Math.abs(y - stand.y) <= reach);
      const cost = before + this.spacing * (floored ? COST.crawlMetre : COST.gapMetre);
      // Where its floor simply goes on, whoever walked on it is as well off in every way, and no joint begins.
      if (!next.some((onward) => Math.abs(onward.y - stand.y) < SAME_FLOOR && onward.cost <= cost))
        all.push({ stand, cost });
    };
    for (const stand of here) add(stand, stand.cost);
    for (const { stand, cost } of hanging) add(stand, cost);
    if (all.length > 1) all.sort((a, b) => a.cost - b.cost);
    const kept: Hanging[] = [];
    for (const one of all) {
      const near = station - one.stand.station <= JOINT + 2 * this.spacing;
      const beaten = kept.some(
        (other) => other.cost + COST.breakRise * Math.abs(other.stand.y - one.stand.y) <= one.cost,
      );
      if (near || !beaten) kept.push(one);
      if (kept.length >= MOST_HANGING) break;
    }
    return kept;
  }

  /** The height at a station nearest to one of two heights: which of them it continues. */
  private sideAt(station: number, a: number, b: number): { isA: boolean; y: number } | null {
    let found: { isA: boolean; y: number } | null = null;
    let nearest = Infinity;
    for (const y of this.surfacesAt(station)) {
      for (const isA of [true, false]) {
        const off = Math.abs(y - (isA ? a : b));
        if (off < nearest) [nearest, found] = [off, { isA, y }];
      }
    }
    return nearest < 0.12 ? found : null;
  }

  /** The jump itself between two neighbouring surfaces, without what the floor rises before and after it. */
  private jump(from: Stand, to: Stand): number {
    let [low, high] = [from.station, to.station];
    let [a, b] = [from.y, to.y];
    // Only a slope can make up the difference: flat floors need no search.
    if (Math.abs(b - a) > this.walker.step + 2 * this.spacing) return Math.abs(b - a);
    for (let round = 0; round < 9; round += 1) {
      const middle = (low + high) / 2;
      const side = this.sideAt(middle, a, b);
      if (!side) break;
      if (side.isA) [low, a] = [middle, side.y];
      else [high, b] = [middle, side.y];
    }
    return Math.abs(b - a);
  }

  /** How long there is no floor between two surfaces that are stations apart, to a millimetre. */
  private openLength(from: Stand, to: Stand): number {
    if (to.station - from.station > JOINT + 2 * this.spacing + 1e-9) return Infinity;
    const [ends, begins] = [from.air ? from.station : this.edge(from, to), this.edge(to, from)];
    return ends === null || begins === null ? Infinity : begins - ends;
  }

  /**
   * Station at which a surface ends on the way towards another; null where it goes on to the next station. Between two
   * surfaces of nearly the same height what goes on lies on the line between them: a beam under a joint does not.
   */
  private edge(stand: Stand, other: Pick<Stand, 'station' | 'y'>): number | null {
    const rise = other.y - stand.y;
    const alike = Math.abs(rise) <= this.walker.step + STEP_SLACK;
    const pitch = alike ? rise / (other.station - stand.station) : 0;
    const off = alike ? 2 * SAME_HEIGHT : this.spacing;
    const continues = (surfaces: readonly number[] | undefined, station: number) => {
      const height = stand.y + pitch * (station - stand.station);
      return surfaces?.some((y) => Math.abs(y - height) < off) ?? false;
    };
    const sense = Math.sign(other.station - stand.station);
    let [inside, outside] = [stand.station, stand.station + sense * this.spacing];
    const next = this.surfaces[Math.round(stand.station / this.spacing) + sense];
    // What lies level goes on, whatever slope would lead to the other: a floor over another one does not end.
    if (continues(next, outside) || next?.some((y) => Math.abs(y - stand.y) < off)) return null;
    for (let round = 0; round < 7; round += 1) {
      const middle = (inside + outside) / 2;
      if (continues(this.surfacesAt(middle), middle)) inside = middle;
      else outside = middle;
    }
    return inside;
  }

  private trace(end: Stand | null): FloorLine {
    const { stations, line } = this;
    const last = stations.length - 1;
    const heights = new Float64Array(stations.length).fill(Number.NaN);
    const gaps: FloorGap[] = [];
    if (!end) return { heights, gaps: [{ reason: 'no floor', from: 0, to: line.length, size: line.length }] };
    const index = (stand: Stand) => Math.round((stand.station / line.length) * last);
    const leaves = (stand: Stand, other: Pick<Stand, 'station' | 'y'>) =>
      stand.air ? stand.station : (this.edge(stand, other) ?? stand.station);
    if (end.air || index(end) < last) {
      const from = leaves(end, { station: line.length, y: end.y });
      if (end.air || line.length - from > JOINT) gaps.push(hole(from, line.length));
    }
    let low: Stand[] = [];
    const endLow = () => {
      if (low.length > 0) {
        const headroom = Math.min(...low.map((stand) => stand.headroom));
        gaps.push({ reason: 'headroom', from: low.at(-1)!.station, to: low[0]!.station, size: headroom });
      }
      low = [];
    };
    for (let stand: Stand | null = end; stand; stand = stand.before) {
      if (!stand.air) heights[index(stand)] = stand.y;
      if (stand.headroom < this.walker.height - STEP_SLACK) low.push(stand);
      else endLow();
      const { before } = stand;
      if (!stand.broken || !before) continue;
      const ends = [leaves(before, stand), leaves(stand, before)];
      const [from, to] = [Math.min(...ends), Math.max(...ends)];
      const rise = Math.abs(stand.y - before.y);
      if (to - from > JOINT || before.air) gaps.push(hole(from, to));
      if (rise > this.walker.step + STEP_SLACK && !before.air) gaps.push({ reason: 'step', from, to, size: rise });
    }
    endLow();
    return { heights, gaps: gaps.sort((a, b) => a.from - b.from || a.to - b.to) };
  }
}

const hole = (from: number, to: number): FloorGap => ({ reason: 'no floor', from, to, size: to - from });
