import { Quaternion as Turn } from 'three';
import type { Quaternion, SpanKind, Travel, TravelPose, Vec3 } from '../document/index.ts';
import { anglesOf, hermite, nearestTurn, orientationOf } from '../geometry/index.ts';

/** An instant at which a camera has a pose. One that stays has two of them. */
interface Knot {
  time: number;
  values: Float64Array;
  turn: Turn;
  /** How it goes on from here. */
  span: SpanKind | 'stay';
}

/** Values of a knot: x, y, z, pan, tilt, roll. */
const VALUES = 6;

/**
 * The pose of a travel as time goes on: through every pose at its time, never beyond two neighbours in any coordinate,
 * with a speed and a turn rate that do not jump; who stays, stays. Spans round the subject turn about it, and are free of
 * the bound in x and z.
 * Sources: Fritsch & Butland 1984 (slopes); Kim, Kim & Shin 1995, "A general construction scheme for unit quaternion
 * curves" (free turning, cubic with given turn rates at both ends).
 */
export class TravelCurve {
  readonly duration: number;
  private readonly knots: Knot[];
  /** Of every knot, a second: of its values, and of its turn about its own axes. */
  private readonly slopes: Float64Array[];
  private readonly rates: Vec3[];
  private readonly subject: Vec3;

  /** One pose alone is stood at. @throws RangeError without any */
  constructor({ poses, turning, ends, subject }: Pick<Travel, 'poses' | 'turning' | 'ends' | 'subject'>) {
    this.knots = knotsOf(poses);
    const last = this.knots.at(-1);
    if (!last) throw new RangeError('a travel needs a pose');
    if (this.knots.length < 2) this.knots.push({ ...last, time: last.time + ALONE });
    if (this.knots.length === 2 && last === this.knots[0]) last.span = 'stay';
    this.duration = this.knots.at(-1)!.time;
    this.subject = subject ?? [0, 0, 0];
    const running = ends === 'running';
    this.slopes = this.knots.map((_, i) => this.slopesAt(i, running));
    this.rates = turning === 'free' ? this.knots.map((_, i) => this.rateAt(i, running)) : [];
  }

  /** Writes x, y and z at a time. */
  placeAt(time: number, out: Float64Array, at: number): void {
    const i = this.spanAt(time);
    const [a, b] = [this.knots[i]!, this.knots[i + 1]!];
    const t = partOf(a, b, time);
    if (a.span === 'round') {
      this.placeRound(i, t, out, at);
      return;
    }
    for (let k = 0; k < 3; k += 1) out[at + k] = this.valueAt(i, k, t);
  }

  orientationAt(time: number): Quaternion {
    const i = this.spanAt(time);
    const [a, b] = [this.knots[i]!, this.knots[i + 1]!];
    const t = partOf(a, b, time);
    if (this.rates.length === 0) {
      const [pan, tilt, roll] = [3, 4, 5].map((k) => this.valueAt(i, k, t)) as Vec3;
      return orientationOf({ pan, tilt, roll });
    }
    return turned(a, b, this.rates[i]!, this.rates[i + 1]!, t);
  }

  /** Index of the knot that a time comes after. */
  private spanAt(time: number): number {
    const { knots } = this;
    let [low, high] = [0, knots.length - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (knots[middle]!.time <= time) low = middle;
      else high = middle;
    }
    return low;
  }

  private valueAt(i: number, k: number, t: number): number {
    const [a, b] = [this.knots[i]!, this.knots[i + 1]!];
    const wide = b.time - a.time;
    return hermite(a.values[k]!, wide * this.slopes[i]![k]!, b.values[k]!, wide * this.slopes[i + 1]![k]!, t);
  }

  /** Round the subject: angle, distance and height, with the speeds that the knots have. */
  private placeRound(i: number, t: number, out: Float64Array, at: number): void {
    const [a, b] = [this.knots[i]!, this.knots[i + 1]!];
    const wide = b.time - a.time;
    const from = this.roundOf(a.values, this.slopes[i]!);
    const to = this.roundOf(b.values, this.slopes[i + 1]!);
    const angle = hermite(from.angle, wide * from.turning, nearestTurn(to.angle, from.angle), wide * to.turning, t);
    const away = hermite(from.away, wide * from.leaving, to.away, wide * to.leaving, t);
    out[at] = this.subject[0] + away * Math.sin(angle);
    out[at + 1] = this.valueAt(i, 1, t);
    out[at + 2] = this.subject[2] + away * Math.cos(angle);
  }

  private roundOf(values: Float64Array, slopes: Float64Array | null) {
    const [dx, dz] = [values[0]! - this.subject[0], values[2]! - this.subject[2]];
    const away = Math.max(1e-9, Math.hypot(dx, dz));
    const [vx, vz] = [slopes?.[0] ?? 0, slopes?.[2] ?? 0];
    return {
      angle: Math.atan2(dx, dz),
      away,
      turning: (vx * dz - vz * dx) / (away * away),
      leaving: (vx * dx + vz * dz) / away,
    };
  }

  private slopesAt(i: number, running: boolean): Float64Array {
    const [before, now, after] = [this.knots[i - 1], this.knots[i]!, this.knots[i + 1]];
    const slopes = new Float64Array(VALUES);
    // Who stays does not move, and a straight line is gone from rest to rest.
    const rests = [before?.span, now.span].some((span) => span === 'stay' || span === 'straight');
    for (let k = 0; k < VALUES; k += 1) {
      const last = before && (now.values[k]! - before.values[k]!) / (now.time - before.time);
      const next = after && (after.values[k]! - now.values[k]!) / (after.time - now.time);
      const straight = k < 3 && rests;
      const stays = before?.span === 'stay' || now.span === 'stay';
      slopes[k] = straight || stays ? 0 : slopeOf(last, next, running);
    }
    if (!rests && (before?.span === 'round' || now.span === 'round'))
      this.turnRound(slopes, before, now, after, running);
    return slopes;
  }

  /** Beside a span round the subject, what is even is the turning about it. */
  private turnRound(
    slopes: Float64Array,
    before: Knot | undefined,
    now: Knot,
    after: Knot | undefined,
    running: boolean,
  ) {
    const here = this.roundOf(now.values, null);
    const rate = (other: Knot | undefined, sign: number) => {
      if (!other) return undefined;
      const there = this.roundOf(other.values, null);
      const wide = sign * (other.time - now.time);
      return {
        turning: (sign * (nearestTurn(there.angle, here.angle) - here.angle)) / wide,
        leaving: (sign * (there.away - here.away)) / wide,
      };
    };
    const [last, next] = [rate(before, -1), rate(after, 1)];
    const turning = slopeOf(last?.turning, next?.turning, running);
    const leaving = slopeOf(last?.leaving, next?.leaving, running);
    const [sine, cosine] = [Math.sin(here.angle), Math.cos(here.angle)];
    slopes[0] = leaving * sine + turning * here.away * cosine;
    slopes[2] = leaving * cosine - turning * here.away * sine;
  }

  /** How fast it turns about its own axes at a knot, radians a second. */
  private rateAt(i: number, running: boolean): Vec3 {
    const [before, now, after] = [this.knots[i - 1], this.knots[i]!, this.knots[i + 1]];
    const last = before && scaled(rotation(before.turn, now.turn), 1 / (now.time - before.time));
    const next = after && scaled(rotation(now.turn, after.turn), 1 / (after.time - now.time));
    const stays = before?.span === 'stay' || now.span === 'stay';
    return [0, 1, 2].map((k) => (stays ? 0 : slopeOf(last?.[k], next?.[k], running))) as Vec3;
  }
}

/** The slope at a knot that lets the curve go beyond no neighbour. */
function slopeOf(last: number | undefined, next: number | undefined, running: boolean): number {
  if (last === undefined || next === undefined) return running ? (last ?? next ?? 0) : 0;
  return last * next <= 0 ? 0 : (2 * last * next) / (last + next);
}

const partOf = (a: Knot, b: Knot, time: number) => Math.min(1, Math.max(0, (time - a.time) / (b.time - a.time)));

/** A pose alone is stood at for so long, seconds. */
const ALONE = 1;
/** Knots nearer to each other than this are one instant, seconds. */
const ONE_INSTANT = 1e-6;

function knotsOf(poses: readonly TravelPose[]): Knot[] {
  const start = poses[0]?.time ?? 0;
  const knots: Knot[] = [];
  poses.forEach(({ time, hold, position, orientation, span }, i) => {
    const angles = anglesOf(orientation);
    const before = knots.at(-1);
    const pan = before ? nearestTurn(angles.pan, before.values[3]) : angles.pan;
    const turn = new Turn(...orientation).normalize();
    // Of the two numbers of one orientation that which is nearer: no flip.
    if (before && before.turn.dot(turn) < 0) turn.set(-turn.x, -turn.y, -turn.z, -turn.w);
    const values = Float64Array.of(...position, pan, angles.tilt, angles.roll);
    const [from, next] = [time - start, (poses[i + 1]?.time ?? Infinity) - start];
    // Two poses at one time: the second one counts.
    if (before && from - before.time < ONE_INSTANT) knots.pop();
    const until = Math.min(from + hold, next);
    const stays = until - from > ONE_INSTANT;
    knots.push({ time: from, values, turn, span: stays ? 'stay' : span });
    if (stays) knots.push({ time: until, values, turn, span });
  });
  return knots;
}

/** What turns one orientation into another, about the axes of the first: half its angle would be the logarithm. */
function rotation(a: Turn, b: Turn): Vec3 {
  between.copy(a).invert().multiply(b);
  if (between.w < 0) between.set(-between.x, -between.y, -between.z, -between.w);
  const sine = Math.hypot(between.x, between.y, between.z);
  const factor = sine < 1e-12 ? 2 : (2 * Math.atan2(sine, between.w)) / sine;
  return [between.x * factor, between.y * factor, between.z * factor];
}
const between = new Turn();

const scaled = ([x, y, z]: Vec3, factor: number): Vec3 => [x * factor, y * factor, z * factor];

/** A turn by a rotation vector, radians. */
function turnBy([x, y, z]: Vec3, factor: number, out: Turn): Turn {
  const angle = Math.hypot(x, y, z) * factor;
  const scale = angle === 0 ? 0 : (Math.sin(angle / 2) / angle) * factor;
  return out.set(x * scale, y * scale, z * scale, Math.cos(angle / 2));
}

/** Cubic of orientations from one to another with given turn rates at both ends. */
function turned(a: Knot, b: Knot, start: Vec3, end: Vec3, t: number): Quaternion {
  const wide = b.time - a.time;
  const [first, third] = [scaled(start, wide / 3), scaled(end, wide / 3)];
  const rest = turnBy(first, 1, one)
    .invert()
    .multiply(two.copy(a.turn).invert())
    .multiply(b.turn)
    .multiply(turnBy(third, 1, two).invert());
  const second = rotation(none, rest);
  const q = out
    .copy(a.turn)
    .multiply(turnBy(first, 1 - (1 - t) ** 3, one))
    .multiply(turnBy(second, t * t * (3 - 2 * t), one))
    .multiply(turnBy(third, t ** 3, one))
    .normalize();
  return [q.x, q.y, q.z, q.w];
}
const [one, two, out, none] = [new Turn(), new Turn(), new Turn(), new Turn()];
