import { hasStretch, type Rate } from '../document/index.ts';
import type { EditedShot } from './edit-shot.ts';
import { overlapsOf } from './plan.ts';
import { frameCount, frameTime } from './timecode.ts';

/** A shot that is to be fitted, and how far it may be. */
export interface FittedShot extends EditedShot {
  /** Its fastest pace, of what it goes at by itself: 1.2 lets it go a fifth faster. Infinity where nobody minds. */
  fastest: number;
}

export interface FittedReel {
  /** Lengths in frames, by shot; shots that are as long as before are not in it. */
  frames: ReadonlyMap<string, number>;
  /** Frames that the reel is then longer (or shorter, below zero) than wanted: there was nothing left to stretch. */
  off: number;
  /** Shots that would exceed their pace, and how much faster than it they would have to be. */
  hasty: readonly { id: string; pace: number }[];
}

/** Nothing that is held is seen when it is shorter, seconds (common practice, no source). */
const SHORTEST_HOLD = 1;

/**
 * Lengths that bring a reel to a wanted length, to the frame: all shots that may be stretched by one factor, those that
 * reach their shortest stay there. Joins share at least what they shared.
 * @param shots all of the reel, in their order
 * @param wanted frames
 */
export function fitReel(shots: readonly FittedShot[], wanted: number, rate: Rate): FittedReel {
  const joins = shots.map(({ body }) => body.join);
  let lengths = shots.map(({ planned }) => planned.frames);
  const totalOf = (frames: readonly number[]) => sum(frames) - sum(overlapsOf(joins, frames, rate));
  const free = shots.map((_, i) => i).filter((i) => !shots[i]!.body.keeps);
  const shortest = free.map((i) => leastFrames(shots, i, rate));
  // Longer shots may share more, as their joins had wanted: then there is more to fill.
  for (let round = 0; round < ROUNDS && free.length > 0 && totalOf(lengths) !== wanted; round += 1) {
    const shared = sum(overlapsOf(joins, lengths, rate));
    const goal = wanted + shared - sum(lengths.filter((_, i) => !free.includes(i)));
    const exact = sharedOut(
      free.map((i) => shots[i]!.planned.frames),
      shortest,
      goal,
    );
    const whole = inWholeFrames(exact, shortest, goal);
    lengths = lengths.map((frames, i) => whole[free.indexOf(i)] ?? frames);
  }
  const changed = free.filter((i) => lengths[i] !== shots[i]!.planned.frames);
  return {
    frames: new Map(changed.map((i) => [shots[i]!.planned.id, lengths[i]!])),
    off: totalOf(lengths) - wanted,
    hasty: free.flatMap((i) => {
      const { body, planned, fastest } = shots[i]!;
      if (!hasStretch(body.use)) return [];
      const same = lengths[i] === planned.frames;
      const pace = same ? planned.speed : (planned.to - planned.from) / frameTime(lengths[i]!, rate);
      return pace > fastest + 1e-9 ? [{ id: planned.id, pace: pace / fastest }] : [];
    }),
  };
}

/** So often what joins share is looked at again. */
const ROUNDS = 60;
const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

/** What a shot cannot be shorter than: what its joins share and a frame between, and what can be taken in. */
function leastFrames(shots: readonly FittedShot[], i: number, rate: Rate): number {
  const { planned, body } = shots[i]!;
  const shared = planned.overlap + (shots[i + 1]?.planned.overlap ?? 0) + 1;
  const seen = hasStretch(body.use) ? 1 : frameCount(SHORTEST_HOLD, rate);
  return Math.max(shared, Math.min(seen, planned.frames));
}

/** Every length times one factor, but none below its least. */
function sharedOut(lengths: readonly number[], least: readonly number[], goal: number): number[] {
  const out = [...lengths];
  const held = new Set<number>();
  for (;;) {
    const free = lengths.map((_, i) => i).filter((i) => !held.has(i));
    const taken = sum([...held].map((i) => least[i]!));
    const whole = sum(free.map((i) => lengths[i]!));
    const factor = whole > 0 ? Math.max(0, (goal - taken) / whole) : 0;
    const under = free.filter((i) => lengths[i]! * factor < least[i]!);
    for (const i of free) out[i] = Math.max(least[i]!, lengths[i]! * factor);
    if (under.length === 0) return out;
    for (const i of under) held.add(i);
  }
}

/** Whole frames with the same sum where that can be had: the largest remainders get one more. */
function inWholeFrames(exact: readonly number[], least: readonly number[], goal: number): number[] {
  const whole = exact.map((length, i) => Math.max(least[i]!, Math.floor(length + 1e-9)));
  const order = exact.map((length, i) => [i, length - whole[i]!] as const).sort((a, b) => b[1] - a[1]);
  let missing = goal - sum(whole);
  for (let k = 0; missing > 0 && order.length > 0; k += 1, missing -= 1) whole[order[k % order.length]![0]]! += 1;
  return whole;
}
