import type { Pace } from '../document/index.ts';
import { hermite } from '../geometry/index.ts';
import type { UnitShape } from './shapes.ts';

/** Slower than this part of its highest speed it is at rest. */
const AT_REST = 0.02;

/**
 * A pace that is kept as it was, as a shape over unit time.
 * @param kept parts of the way that are gone at even times, from 0 to 1, never falling
 */
export function keptShape(kept: readonly number[]): UnitShape {
  const last = kept.length - 1;
  const slopes = slopesOf(kept);
  const piece = (tau: number): [i: number, t: number] => {
    const at = Math.min(1, Math.max(0, tau)) * last;
    const i = Math.min(last - 1, Math.floor(at));
    return [i, at - i];
  };
  const way = (tau: number) => {
    const [i, t] = piece(tau);
    return hermite(kept[i]!, slopes[i]!, kept[i + 1]!, slopes[i + 1]!, t);
  };
  const speed = (tau: number) => {
    const [i, t] = piece(tau);
    const [p, m, q, n] = [kept[i]!, slopes[i]!, kept[i + 1]!, slopes[i + 1]!];
    return last * (6 * t * (1 - t) * (q - p) + (1 - t) * (1 - 3 * t) * m + t * (3 * t - 2) * n);
  };
  let peak = 0;
  for (let i = 0; i < last; i += 1) {
    // Between two values the speed is a parabola: highest at one of them, or at its vertex.
    const [rise, m, n] = [kept[i + 1]! - kept[i]!, slopes[i]!, slopes[i + 1]!];
    const bend = 3 * (m + n) - 6 * rise;
    const vertex = bend < 0 ? Math.min(1, Math.max(0, (2 * m + n - 3 * rise) / bend)) : 0;
    peak = Math.max(peak, speed(i / last), speed((i + vertex) / last), speed((i + 1) / last));
  }
  const rests = (at: number) => slopes[at]! * last < AT_REST * peak;
  return {
    speed: (tau) => speed(tau) / peak,
    way: (tau) => way(tau) / peak,
    whole: 1 / peak,
    rests: { start: rests(0), end: rests(last) },
  };
}

/** Slopes of a cubic through evenly spaced values that never falls between them (Fritsch & Carlson 1980). */
function slopesOf(values: readonly number[]): Float64Array {
  const last = values.length - 1;
  const rise = (i: number) => values[i + 1]! - values[i]!;
  return Float64Array.from(values, (_, i) => {
    const [before, after] = [rise(Math.max(0, i - 1)), rise(Math.min(last - 1, i))];
    // At an end as it began to change beside it.
    const beside = last < 2 ? before : i === 0 ? rise(1) : i === last ? rise(last - 2) : before;
    const slope = i === 0 || i === last ? 1.5 * before - 0.5 * beside : (before + after) / 2;
    return Math.min(3 * Math.min(before, after), Math.max(0, slope));
  });
}

/** A pace that something else is said of than how long or how fast it is: it is not kept as it was any longer. */
export function otherPace(pace: Pace, change: Partial<Pace>): Pace {
  const { kept: _, ...others } = pace;
  return { ...others, ...change };
}
