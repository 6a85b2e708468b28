import { frameAt, frameCount, frameTime } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { useEffect } from 'react';
import { workbench, useWorkbench, type Round } from './workbench.ts';

/** Nobody sees more than a blur of what goes faster. */
const FASTEST = 8;
/** So near to its end it is over, seconds. */
const AT_END = 0.05;

/** Goes to a frame of the move, kept inside it. */
export function goToFrame(frame: number, duration: number, rate: Rate): void {
  const last = frameCount(duration, rate) - 1;
  workbench.set({ time: frameTime(Math.min(last, Math.max(0, frame)), rate), playing: false, scout: null });
}

export function togglePlaying(duration: number): void {
  const { playing, time } = workbench.get();
  const again = !playing && time >= duration - AT_END;
  workbench.set({ playing: !playing, playRate: 1, scout: null, ...(again ? { time: 0 } : {}) });
}

/**
 * Plays forward (1) or backward (−1), from the other end where it is over; asked again while it does, twice as fast.
 * @param slowly a part of real time, for looking closely
 */
export function shuttle(way: 1 | -1, duration: number, slowly = 1): void {
  const { playing, playRate, time } = workbench.get();
  const faster = playing && playRate * way >= 1 && slowly === 1;
  const over = way > 0 ? time >= duration - AT_END : time <= AT_END;
  workbench.set({
    playing: true,
    playRate: faster ? way * Math.min(FASTEST, 2 * Math.abs(playRate)) : way * slowly,
    scout: null,
    ...(!playing && over ? { time: way > 0 ? 0 : duration } : {}),
  });
}

export const stopPlaying = (): void => workbench.set({ playing: false, playRate: 1 });

/** Shortest stretch that is played round and round, seconds. */
const SHORTEST_ROUND = 0.2;

/** Lets a stretch that is played round and round begin or end at a time; what had been its other end gives way. */
export function setRound(end: 'from' | 'to', time: number, duration: number): void {
  const now = workbench.get().round ?? { from: 0, to: duration };
  const round = { ...now, [end]: Math.min(duration, Math.max(0, time)) };
  if (round.to - round.from < SHORTEST_ROUND) {
    if (end === 'from') round.to = duration;
    else round.from = 0;
  }
  workbench.set({ round: round.to - round.from < SHORTEST_ROUND ? null : round });
}

/** Where the clock is after some seconds, and whether it goes on. */
export function clockAfter(
  { time, playRate, round }: { time: number; playRate: number; round?: Round | null },
  seconds: number,
  duration: number,
  loops: boolean,
): { time: number; playing: boolean } {
  const next = time + seconds * playRate;
  if (round && round.to > round.from) {
    const long = round.to - round.from;
    // Who begins elsewhere gets there first.
    if (playRate > 0 ? next < round.to : next > round.from)
      return { time: Math.min(duration, Math.max(0, next)), playing: true };
    return { time: round.from + (next - round.from - long * Math.floor((next - round.from) / long)), playing: true };
  }
  if (loops) return { time: next - duration * Math.floor(next / duration), playing: true };
  if (next >= duration) return { time: duration, playing: false };
  return next <= 0 && playRate < 0 ? { time: 0, playing: false } : { time: Math.max(0, next), playing: true };
}

/** A picture that is made while it plays changes no more often, milliseconds: the rest of the machine belongs to it. */
const SHORTEST_TICK = 30;
/** What is drawn already is looked at more often than its frames change, as a part of a frame's time in milliseconds. */
const FRAME_PART = 350;

/** The instant that the picture showed last, seconds into the move. */
let shown = Number.NaN;
export const tellShown = (time: number): void => void (shown = time);
/** Two instants nearer than this are one, seconds. */
const SAME = 1e-6;
/** A picture is not waited for longer, milliseconds: it may be out of sight. */
const PATIENCE = 3000;

/** Is it time for the next frame? Not before the picture of this one has been seen, and not sooner than in life. */
export function mayStep(
  { time, playRate }: { time: number; playRate: number },
  waited: number,
  rate: Rate,
  seen = shown,
): boolean {
  if (waited < (1000 * frameTime(1, rate)) / Math.abs(playRate)) return false;
  return Math.abs(seen - time) < SAME || waited > PATIENCE;
}

/**
 * When a frame that is shown now counts as having begun, milliseconds: when it was due, so that frames come as often as in
 * life although screens show none but at their own times; now, where it is far too late for that.
 * @param before when the frame before began @param frame what one takes
 */
export const stepBegins = (before: number, now: number, frame: number): number =>
  now - before < 2 * frame ? before + frame : now;

/** One frame on, or back, on the frames of the film. */
export function frameAfter(
  state: { time: number; playRate: number; round?: Round | null },
  rate: Rate,
  duration: number,
  loops: boolean,
): { time: number; playing: boolean } {
  const after = clockAfter(state, frameTime(1, rate) / Math.abs(state.playRate), duration, loops);
  if (!after.playing) return after;
  // A hair on: what was added up must not fall on the frame before.
  return { ...after, time: Math.min(duration, frameTime(frameAt(after.time + SAME, rate), rate)) };
}

/**
 * Runs the clock while playing, round and round where the end is the beginning. Real time: a slow machine shows fewer
 * pictures, not a slower walk, unless every frame is wanted.
 * @param rate of what is drawn already
 * @param steps rate of a move whose every frame can be waited for
 */
export function usePlayback(duration: number, loops: boolean, rate?: Rate, steps?: Rate): void {
  const playing = useWorkbench((state) => state.playing);
  const shortest = rate ? Math.min(SHORTEST_TICK, FRAME_PART * frameTime(1, rate)) : SHORTEST_TICK;
  useEffect(() => {
    if (!playing || duration <= 0) return;
    let before = performance.now();
    let loop = requestAnimationFrame(function tick(now) {
      if (now - before < shortest) {
        loop = requestAnimationFrame(tick);
        return;
      }
      const state = workbench.get();
      const stepped = state.everyFrame && steps !== undefined;
      if (stepped && !mayStep(state, now - before, steps)) {
        loop = requestAnimationFrame(tick);
        return;
      }
      // The first frame's time stamp may lie before the moment the button was pressed.
      const after = stepped
        ? frameAfter(state, steps, duration, loops)
        : clockAfter(state, Math.max(0, now - before) / 1000, duration, loops);
      before = stepped
        ? stepBegins(before, now, (1000 * frameTime(1, steps)) / Math.abs(state.playRate))
        : Math.max(before, now);
      workbench.set(after.playing ? { time: after.time } : after);
      if (after.playing) loop = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(loop);
  }, [playing, duration, loops, shortest, steps]);
}
