import type { Path } from '../document/index.ts';
import { hermite, monotoneSlopes, pieceAt } from '../geometry/index.ts';
import { PlanCurve } from './plan-curve.ts';

/** The way in space is measured in pieces of the way in plan no longer than this, metres, and in no fewer and no more than so many. */
const PIECE = 0.05;
const [FEWEST, MOST] = [64, 8000];

/** A height at every plan station; no higher and no lower than the nodes beside it. */
export type HeightAt = (planStation: number) => number;

/**
 * Heights of nodes as a line along the plan: through every node, monotone between two of them, level at its open ends.
 */
export function heightsOf(path: Path, curve: PlanCurve): HeightAt {
  const closed = path.closed && path.nodes.length > 2;
  const placed = path.nodes.map(({ y }, i) => ({ at: curve.nodeStations[i]!, y })).sort((a, b) => a.at - b.at);
  const knots = placed.filter(({ at }, i) => i === 0 || at - placed[i - 1]!.at > 1e-6);
  if (closed) {
    const { length } = curve;
    const before = knots.slice(-2).map(({ at, y }) => ({ at: at - length, y }));
    const after = knots.slice(0, 2).map(({ at, y }) => ({ at: at + length, y }));
    knots.unshift(...before);
    knots.push(...after);
  }
  if (knots.length < 2) return () => knots[0]?.y ?? 0;
  const slopes = monotoneSlopes(
    knots.map(({ at }) => at),
    knots.map(({ y }) => y),
  );
  return (station) => {
    let [low, high] = [0, knots.length - 1];
    if (station <= knots[0]!.at) return knots[0]!.y;
    if (station >= knots[high]!.at) return knots[high]!.y;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (knots[middle]!.at <= station) low = middle;
      else high = middle;
    }
    const [a, b] = [knots[low]!, knots[high]!];
    const width = b.at - a.at;
    const t = (station - a.at) / width;
    return hermite(a.y, width * slopes[low]!, b.y, width * slopes[high]!, t);
  };
}

/** A way in space: a path in plan, and a height along it. Stations are metres along the way itself, up and down too. */
export class SpaceWay {
  /** metres */
  readonly length: number;
  readonly closed: boolean;
  readonly curve: PlanCurve;
  /** Length of the way in space at even stations of the plan, and how fast it grows there. */
  private readonly along: Float64Array;
  private readonly growth: Float64Array;
  private readonly point = new Float64Array(2);

  /**
   * @param heightAt by station of the plan; without it, as the nodes are
   * @throws RangeError when the path has fewer than two nodes in different places
   */
  constructor(
    path: Path,
    curve = new PlanCurve(path),
    readonly heightAt: HeightAt = heightsOf(path, curve),
  ) {
    if (!(curve.length > 0)) throw new RangeError('a path needs two nodes in different places');
    this.curve = curve;
    this.closed = path.closed && path.nodes.length > 2;
    const pieces = Math.min(MOST, Math.max(FEWEST, Math.ceil(curve.length / PIECE)));
    const piece = curve.length / pieces;
    const heights = Float64Array.from({ length: pieces + 1 }, (_, i) => heightAt(i * piece));
    this.along = new Float64Array(pieces + 1);
    for (let i = 1; i <= pieces; i += 1)
      this.along[i] = this.along[i - 1]! + Math.hypot(piece, heights[i]! - heights[i - 1]!);
    const rise = (i: number) => {
      const [a, b] = this.closed
        ? [(i + pieces - 1) % pieces, (i + 1) % pieces]
        : [Math.max(0, i - 1), Math.min(pieces, i + 1)];
      const wide = this.closed ? 2 : b - a;
      return (heights[b]! - heights[a]!) / (wide * piece);
    };
    this.growth = Float64Array.from({ length: pieces + 1 }, (_, i) => Math.hypot(1, rise(i)));
    this.length = this.along[pieces]!;
  }

  /** Station of the plan below a station of the way. */
  planAt(station: number): number {
    const { along, growth, curve } = this;
    const last = along.length - 1;
    if (station <= 0) return 0;
    if (station >= along[last]!) return curve.length;
    const low = pieceAt(along, station);
    const high = low + 1;
    const piece = curve.length / last;
    const wide = along[high]! - along[low]!;
    const part = (station - along[low]!) / wide;
    const [start, end] = [wide / growth[low]!, wide / growth[high]!];
    return low * piece + hermite(0, start, piece, end, part);
  }

  /** Station of the way above a station of the plan. */
  stationAt(planStation: number): number {
    const { along, growth, curve } = this;
    const last = along.length - 1;
    const place = Math.min(last, Math.max(0, (planStation / curve.length) * last));
    const low = Math.min(last - 1, Math.floor(place));
    const piece = curve.length / last;
    const [start, end] = [piece * growth[low]!, piece * growth[low + 1]!];
    return along[low]! + hermite(0, start, along[low + 1]! - along[low]!, end, place - low);
  }

  /** Writes x, y and z at a station, metres. */
  placeAt(station: number, out: Float64Array, at = 0): void {
    const plan = this.planAt(station);
    this.curve.pointAt(plan, this.point);
    out[at] = this.point[0]!;
    out[at + 1] = this.heightAt(plan);
    out[at + 2] = this.point[1]!;
  }

  /** Where the way is passed at a node, metres; null where the path has no such node. */
  stationOfNode(index: number): number | null {
    const plan = this.curve.nodeStations[index];
    return plan === undefined ? null : this.stationAt(plan);
  }
}
