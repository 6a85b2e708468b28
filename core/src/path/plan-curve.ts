import type { Path } from '../document/index.ts';
import { bezierDerivative, bezierPoint, STRIDE, type BezierChain } from './bezier.ts';
import { GAUSS5_W, GAUSS5_X } from './quadrature.ts';
import { pathToBeziers } from './spline.ts';

/** A Bézier is cut until one five-point rule over a piece agrees with two over its halves to this many metres. */
const PIECE_TOLERANCE = 1e-8;
/** Halvings at most: enough to close in on a cusp, where the speed has a kink. */
const DEEPEST = 22;
/** The nearest point is searched until nothing more than this much nearer can be left, metres. */
const NEAREST_TOLERANCE = 1e-3;
/** A Bézier goes evenly where its speed changes by less than this part. */
const EVEN = 1e-3;

/**
 * A path in plan, addressed by station (metres along it). Lookups are O(log n), allocate nothing and walk the
 * curve at constant speed to about 1e-9 m.
 */
export class PlanCurve {
  readonly length: number;
  /** Béziers, eight numbers each. */
  readonly chain: BezierChain;
  /** For every Bézier, which span of the path (between node i and i + 1) it belongs to. */
  readonly spanOfSegment: Int32Array;
  /** Where each node is passed, at the middle of its rounding where it has one; a node on top of another shares its place. */
  readonly nodeStations: Float64Array;
  /** Station at the start of every piece, and the total at the end. */
  private readonly stations: Float64Array;
  /** Parameter within its Bézier where a piece starts and ends: two numbers a piece. */
  private readonly parameters: Float64Array;
  /**
   * Slopes of the inverse at a piece's ends, limited so that the first guess is monotone (Fritsch & Carlson 1980):
   * two numbers a piece.
   */
  private readonly slopes: Float64Array;
  /** Offset in the chain of a piece's Bézier. */
  private readonly bases: Int32Array;
  private readonly scratch = new Float64Array(2);

  constructor(path: Path) {
    const { chain, spanOfSegment, roundings } = pathToBeziers(path);
    this.chain = chain;
    this.spanOfSegment = spanOfSegment;
    const stations = [0];
    const parameters: number[] = [];
    const bases: number[] = [];
    const cut = (base: number, from: number, to: number, whole: number, depth: number): void => {
      const middle = (from + to) / 2;
      const left = this.partLength(base, from, middle);
      const right = this.partLength(base, middle, to);
      if (depth < DEEPEST && (depth < 3 || Math.abs(left + right - whole) > PIECE_TOLERANCE)) {
        cut(base, from, middle, left, depth + 1);
        cut(base, middle, to, right, depth + 1);
        return;
      }
      bases.push(base);
      parameters.push(from, to);
      stations.push(stations.at(-1)! + left + right);
    };
    for (let base = 0; base < chain.length; base += STRIDE) cut(base, 0, 1, this.partLength(base, 0, 1), 0);
    this.stations = Float64Array.from(stations);
    this.parameters = Float64Array.from(parameters);
    this.bases = Int32Array.from(bases);
    this.length = stations.at(-1)!;
    this.nodeStations = this.stationsOfNodes(path.nodes.length, roundings);
    this.slopes = new Float64Array(parameters.length);
    for (let k = 0; k < parameters.length; k += 1) {
      const piece = k >> 1;
      const width = parameters[2 * piece + 1]! - parameters[2 * piece]!;
      const span = stations[piece + 1]! - stations[piece]!;
      this.slopes[k] = Math.min(span / Math.max(this.speed(bases[piece]!, parameters[k]!), 1e-12), 3 * width);
    }
  }

  private stationsOfNodes(nodes: number, roundings: ReadonlySet<number>): Float64Array {
    const segments = this.spanOfSegment.length;
    const starts = new Float64Array(segments + 1).fill(this.length);
    for (let piece = this.bases.length - 1; piece >= 0; piece -= 1)
      starts[this.bases[piece]! / STRIDE] = this.stations[piece]!;
    const out = new Float64Array(nodes).fill(Number.NaN);
    for (let segment = 0; segment < segments; segment += 1) {
      const node = this.spanOfSegment[segment]!;
      if (!Number.isNaN(out[node]!)) continue;
      const rounded = segment > 0 && roundings.has(segment - 1);
      out[node] = rounded ? (starts[segment - 1]! + starts[segment]!) / 2 : starts[segment]!;
    }
    for (let node = 0; node < nodes; node += 1)
      if (Number.isNaN(out[node]!)) out[node] = node === nodes - 1 ? this.length : node === 0 ? 0 : out[node - 1]!;
    return out;
  }

  /** Writes [x, z] at a station (clamped to the path) into `out`. */
  pointAt(station: number, out: Float64Array, at = 0): void {
    if (this.stations.length === 1) throw new RangeError('a path needs two nodes in different places');
    const piece = this.pieceAt(station);
    bezierPoint(this.chain, this.bases[piece]!, this.parameterAt(piece, station), out, at);
  }

  /** Writes the unit direction of travel [dx, dz] at a station into `out`. */
  directionAt(station: number, out: Float64Array, at = 0): void {
    const piece = this.pieceAt(station);
    const base = this.bases[piece]!;
    let t = this.parameterAt(piece, station);
    bezierDerivative(this.chain, base, t, out, at);
    if (Math.hypot(out[at]!, out[at + 1]!) < 1e-9) {
      // A cusp has no direction of its own: take the one just beside it.
      t = t < 0.5 ? t + 1e-4 : t - 1e-4;
      bezierDerivative(this.chain, base, t, out, at);
    }
    const length = Math.hypot(out[at]!, out[at + 1]!) || 1;
    out[at] = out[at]! / length;
    out[at + 1] = out[at + 1]! / length;
  }

  /** Batch form: [x, z] for every station, which must not decrease. Fills `out` (2 × stations.length). */
  pointsAt(stations: ArrayLike<number>, out: Float64Array): void {
    const last = this.stations.length - 2;
    let piece = 0;
    for (let i = 0; i < stations.length; i += 1) {
      const station = stations[i]!;
      while (piece < last && this.stations[piece + 1]! <= station) piece += 1;
      bezierPoint(this.chain, this.bases[piece]!, this.parameterAt(piece, station), out, i * 2);
    }
  }

  /**
   * Station of the point of the path nearest to (x, z), its distance in metres, and the span it lies on. Exact to a
   * millimetre also where the path comes back beside itself: walking one metre changes the distance by one metre at
   * most, so every stretch that could still hide something nearer is halved until none can.
   */
  nearest(x: number, z: number): { station: number; distance: number; span: number } {
    const p = this.scratch;
    const distanceAt = (station: number) => {
      this.pointAt(station, p);
      return Math.hypot(p[0]! - x, p[1]! - z);
    };
    let best = Infinity;
    let bestStation = 0;
    const consider = (station: number) => {
      const distance = distanceAt(station);
      if (distance < best) {
        best = distance;
        bestStation = station;
      }
      return distance;
    };
    let width = this.length / Math.max(8, Math.ceil(this.length / 0.25));
    let stretches: [from: number, atStart: number, atEnd: number][] = [];
    let before = consider(0);
    for (let from = 0; from < this.length - width / 2; from += width) {
      const after = consider(Math.min(this.length, from + width));
      stretches.push([from, before, after]);
      before = after;
    }
    while (stretches.length > 0) {
      const half = width / 2;
      const next: typeof stretches = [];
      for (const [from, atStart, atEnd] of stretches) {
        if ((atStart + atEnd - width) / 2 > best - NEAREST_TOLERANCE) continue;
        const middle = consider(from + half);
        next.push([from, atStart, middle], [from + half, middle, atEnd]);
      }
      stretches = next;
      width = half;
    }
    for (let step = NEAREST_TOLERANCE; step > 1e-5; step /= 2) {
      const middle = bestStation;
      consider(Math.max(0, middle - step));
      consider(Math.min(this.length, middle + step));
    }
    const segment = this.bases[this.pieceAt(bestStation)]! / STRIDE;
    return { station: bestStation, distance: best, span: this.spanOfSegment[segment]! };
  }

  private pieceAt(station: number): number {
    let low = 0;
    let high = this.stations.length - 2;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.stations[middle]! <= station) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /**
   * Parameter within the Bézier at a station of this piece: first the cubic that fits the inverse at both ends,
   * then Newton steps, bisecting whenever one would leave the bracket.
   */
  private parameterAt(piece: number, station: number): number {
    const start = this.stations[piece]!;
    const span = this.stations[piece + 1]! - start;
    const base = this.bases[piece]!;
    const from = this.parameters[piece * 2]!;
    const to = this.parameters[piece * 2 + 1]!;
    const wanted = station - start;
    if (wanted <= 0 || span <= 0) return from;
    if (wanted >= span) return to;
    const s = wanted / span;
    const width = to - from;
    const slopeStart = this.slopes[2 * piece]!;
    const slopeEnd = this.slopes[2 * piece + 1]!;
    const s2 = s * s;
    const s3 = s2 * s;
    let t = from + (3 * s2 - 2 * s3) * width + (s - 2 * s2 + s3) * slopeStart + (s3 - s2) * slopeEnd;
    let low = from;
    let high = to;
    for (let i = 0; i < 40; i += 1) {
      const error = this.partLength(base, from, t) - wanted;
      if (Math.abs(error) < 1e-9) break;
      if (error > 0) high = t;
      else low = t;
      const speed = this.speed(base, t);
      const next = t - error / speed;
      const inside = next > low && next < high;
      t = inside ? next : (low + high) / 2;
      // Newton doubles the digits: what is left after such a step is far below a nanometre. Not where the way turns back:
      // there it stands still for a moment, and a step goes anywhere.
      if (inside && Math.abs(error) < 1e-5 * span && Math.abs(this.speed(base, t) - speed) < EVEN * speed) break;
    }
    return t;
  }

  private speed(base: number, t: number): number {
    const c = this.chain;
    const u = 1 - t;
    const b0 = 3 * u * u;
    const b1 = 6 * u * t;
    const b2 = 3 * t * t;
    const dx = b0 * (c[base + 2]! - c[base]!) + b1 * (c[base + 4]! - c[base + 2]!) + b2 * (c[base + 6]! - c[base + 4]!);
    const dz =
      b0 * (c[base + 3]! - c[base + 1]!) + b1 * (c[base + 5]! - c[base + 3]!) + b2 * (c[base + 7]! - c[base + 5]!);
    return Math.sqrt(dx * dx + dz * dz);
  }

  private partLength(base: number, from: number, to: number): number {
    const half = (to - from) / 2;
    const middle = (to + from) / 2;
    let sum = 0;
    for (let i = 0; i < 5; i += 1) sum += GAUSS5_W[i]! * this.speed(base, middle + half * GAUSS5_X[i]!);
    return sum * half;
  }
}
