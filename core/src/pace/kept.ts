import type { Pace } from '../document/index.ts';
import { hermite, monotoneSlope } from '../geometry/index.ts';
import type { UnitShape } from './shapes.ts';

/** Slower than this part of its highest speed it is at rest. */
const AT_REST = 0.02;

/**
 * A pace that is kept as it was, as a shape over unit time.
 * @param kept parts of the way that are gone at even times, from 0 to 1, never falling
 */
export function keptShape(kept: readonly number[]): UnitShape {
  const last = kept.length - 1;
  const rise = (i: number) => kept[i + 1]! - kept[i]!;
  const slopes = kept.map((_, i) => monotoneSlope(rise(Math.max(0, i - 1)), rise(Math.min(last - 1, i))));
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
    const [m, n] = [slopes[i]!, slopes[i + 1]!];
    const bend = 3 * (m + n) - 6 * rise(i);
    const vertex = bend < 0 ? Math.min(1, Math.max(0, (2 * m + n - 3 * rise(i)) / bend)) : 0;
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

/** A pace that something else is said of than how long or how fast it is: it is not kept as it was any longer. */
export function otherPace(pace: Pace, change: Partial<Pace>): Pace {
  const { kept: _, ...others } = pace;
  return { ...others, ...change };
}
