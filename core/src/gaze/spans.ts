import { nearestTurn } from '../geometry/index.ts';
import type { GazeTables } from './tables.ts';

/** A stretch of time with a gaze of its own, at the same even times as what it lies over. */
export interface PlacedSpan {
  /** seconds */
  from: number;
  to: number;
  /** How long the eye turns there, and away again, seconds. */
  handOver: number;
  gaze: GazeTables;
}

/** Spans nearer to each other than this hand over to each other, not back to what lies under them, seconds. */
const ADJACENT = 0.25;

/**
 * Lays spans over a gaze. The eye turns to each as a head does, about the vertical and up or down at once, the nearer way
 * round, softly (`ease`: 0…1 to 0…1), and away again within the span; where another span follows at once, to that.
 * @param step seconds between two values
 */
export function layOver(
  under: GazeTables,
  spans: readonly PlacedSpan[],
  step: number,
  ease: (part: number) => number,
): GazeTables {
  const out = { pan: under.pan.slice(), tilt: under.tilt.slice() };
  const last = out.pan.length - 1;
  const end = last * step;
  const sorted = [...spans].filter(({ from, to }) => to > from).sort((a, b) => a.from - b.from);
  sorted.forEach((span, i) => {
    const next = sorted[i + 1];
    const handsOn = next !== undefined && next.from - span.to < ADJACENT && next.to > span.to;
    const to = handsOn ? Math.min(next.to, Math.max(span.to, next.from + next.handOver)) : span.to;
    // At the ends of the move it has been looking, and goes on.
    const opens = span.from <= step;
    const closes = handsOn || span.to >= end - step;
    const turn = Math.min(span.handOver, (to - span.from) / (opens || closes ? 1 : 2));
    let apart = 0;
    for (let k = Math.max(0, Math.ceil(span.from / step)); k <= Math.min(last, Math.floor(to / step)); k += 1) {
      const time = k * step;
      const into = opens || turn === 0 ? 1 : (time - span.from) / turn;
      const away = closes || turn === 0 ? 1 : (to - time) / turn;
      const part = ease(Math.min(1, Math.max(0, Math.min(into, away))));
      // Whichever way round it began to turn, it goes on.
      apart = nearestTurn(span.gaze.pan[k]! - out.pan[k]!, apart);
      out.pan[k] = out.pan[k]! + part * apart;
      out.tilt[k] = out.tilt[k]! + part * (span.gaze.tilt[k]! - out.tilt[k]!);
    }
  });
  // Whichever way round each turned, what follows goes on from there.
  for (let k = 1; k <= last; k += 1) out.pan[k] = nearestTurn(out.pan[k]!, out.pan[k - 1]!);
  return out;
}
