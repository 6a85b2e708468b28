import { MOST_KEPT, PACE_LIMITS, type Pace } from '../document/index.ts';
import { pieceAt, smooth } from '../geometry/index.ts';

/** What is done to a stretch of a move's time. */
export type StretchChange =
  /** It takes so long; what follows comes later or earlier by as much. */
  | { by: 'seconds'; seconds: number }
  /** It comes so much later (earlier, where negative); the whole takes as long as before. Seconds. */
  | { by: 'shift'; seconds: number }
  /** It is gone through with the speeds that it had, the last first. */
  | { by: 'turn' };

/** A stretch of a move's time, seconds. */
export interface TimeStretch {
  from: number;
  to: number;
}

interface Retimed {
  pace: Pace;
  /** Where the stretch is now. */
  stretch: TimeStretch;
}

/** Times are stretched softly: from one tempo to another within so long, and no more than a part of the stretch; seconds. */
const RAMP = 0.6;
const MOST_RAMP = 0.25;
/** Nothing goes through its time faster or more slowly than so many times as before. */
const TEMPO: readonly [number, number] = [0.1, 10];
/** So often is looked at how much of the way is gone, seconds. */
const INSTANT = 0.02;
const MOST_INSTANTS = 20_000;

/**
 * A pace with a stretch of its time made longer, moved, or turned round. It is kept as it is then (see decision 036): at
 * every place outside the stretch as fast as before, and never backward.
 * @param gone parts of the way that are gone at a time of the move, 0…1, never falling
 * @param duration of the move, seconds
 * @returns null where it cannot be done: nothing before or after it gives way
 */
export function retimed(
  pace: Pace,
  gone: (time: number) => number,
  duration: number,
  stretch: TimeStretch,
  change: StretchChange,
): Retimed | null {
  const from = Math.max(0, stretch.from);
  const to = Math.min(duration, stretch.to);
  if (!(to > from)) return null;
  if (change.by === 'turn') {
    const turned = (time: number) =>
      time <= from || time >= to ? gone(time) : gone(from) + gone(to) - gone(from + to - time);
    return { pace: keptBy(pace, turned, duration), stretch: { from, to } };
  }
  const bumps =
    change.by === 'seconds'
      ? [bumpOver(from, to, change.seconds, duration)]
      : [
          bumpOver(0, from, from + change.seconds, duration),
          bumpOver(to, duration, duration - to - change.seconds, duration),
        ];
  if (bumps.some((bump) => bump === null)) return null;
  const tempo = (time: number) => bumps.reduce((product, bump) => product * bump!(time), 1);
  // When each old time is now: the sum of how long every instant takes.
  const steps = Math.min(MOST_INSTANTS, Math.max(2, Math.ceil(duration / INSTANT)));
  const step = duration / steps;
  const now = new Float64Array(steps + 1);
  for (let i = 1; i <= steps; i += 1) now[i] = now[i - 1]! + step * tempo((i - 0.5) * step);
  const length = now[steps]!;
  if (length < PACE_LIMITS.duration[0] || length > PACE_LIMITS.duration[1]) return null;
  const oldAt = (time: number): number => {
    const low = pieceAt(now, time);
    return (low + (time - now[low]!) / (now[low + 1]! - now[low]!)) * step;
  };
  const nowAt = (time: number) => {
    const at = Math.min(steps - 1, Math.floor(time / step));
    return now[at]! + (now[at + 1]! - now[at]!) * (time / step - at);
  };
  return {
    pace: keptBy(pace, (time) => gone(oldAt(time)), length),
    stretch: { from: nowAt(from), to: nowAt(to) },
  };
}

/**
 * How long an instant takes within a stretch that is to last so long: 1 outside of it, softly another within. Null where
 * it cannot last so long.
 */
function bumpOver(from: number, to: number, seconds: number, duration: number): ((time: number) => number) | null {
  const length = to - from;
  if (Math.abs(seconds - length) < 1e-9) return () => 1;
  if (!(length > 0) || seconds < PACE_LIMITS.duration[0]) return null;
  const ramp = Math.min(RAMP, length * MOST_RAMP);
  // At the ends of the move there is nothing to go over to.
  const [into, out] = [from > 0 ? ramp : 0, to < duration ? ramp : 0];
  const factor = 1 + (seconds - length) / (length - (into + out) / 2);
  if (factor < TEMPO[0] || factor > TEMPO[1]) return null;
  return (time) => {
    if (time <= from || time >= to) return 1;
    const within = (into > 0 ? smooth(0, into, time - from) : 1) * (out > 0 ? smooth(0, out, to - time) : 1);
    return 1 + (factor - 1) * within;
  };
}

function keptBy(pace: Pace, gone: (time: number) => number, duration: number): Pace {
  const count = Math.min(MOST_KEPT - 1, Math.max(2, Math.ceil(duration / INSTANT)));
  let least = 0;
  const kept = Array.from({ length: count + 1 }, (_, i) => {
    least = Math.max(least, Math.min(1, gone((duration * i) / count)));
    return i === 0 ? 0 : i === count ? 1 : least;
  });
  return { ...pace, by: 'duration', duration, kept };
}
