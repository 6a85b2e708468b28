import { FIRST_HOLD, hasStretch, type Join, type Rate, type ShotBody, type ShotUse } from '../document/index.ts';
import { frameCount, frameTime } from './timecode.ts';

/** What a shot takes its pictures from, as far as its length needs: a move of some seconds, or something that holds. */
export interface ShotSource {
  /** seconds; Infinity for what holds as long as one likes */
  duration: number;
  /** Its end is its beginning: it can go round. */
  loops: boolean;
}

export const HOLDS: ShotSource = { duration: Infinity, loops: false };

/** The source of what needs nothing of the project: a clip is as long as its file, anything else holds. */
export const ownSource = (use: ShotUse): ShotSource =>
  use.kind === 'clip' ? { duration: use.duration, loops: false } : HOLDS;

/** A shot as planning needs it. */
export interface ShotToPlan {
  id: string;
  body: Pick<ShotBody, 'use' | 'seconds' | 'join'>;
}

/** A shot at its place in the reel. All frames are whole; times of the source are seconds. */
export interface PlannedShot {
  id: string;
  index: number;
  /** The frame of the reel that shows its first. */
  start: number;
  /** How many frames it has, those that it shares with its neighbours included. */
  frames: number;
  /** Frames at its start that it shares with the shot before it. */
  overlap: number;
  join: Join | null;
  /** The stretch of its source that it shows, seconds; `from` is where it begins, also backwards. */
  from: number;
  to: number;
  backwards: boolean;
  /** Seconds of the source in one of the reel. */
  speed: number;
  /** Unused seconds of the source before and after that stretch. */
  spare: { before: number; after: number };
  /** What is wrong with it, if anything: what it shows is not there any more, or is shorter than it was. */
  lost: 'gone' | 'shorter' | null;
}

export interface ReelPlan {
  rate: Rate;
  /** Whole frames from the first to the last: all lengths less all overlaps. */
  frames: number;
  shots: readonly PlannedShot[];
}

/** Shortest stretch of a move that is a shot, seconds: less than a frame. */
export const SHORTEST = 0.001;

/**
 * Start times and lengths of a reel, from the order, the lengths and the joins of its shots. Nothing else says when a shot
 * begins: whatever is changed, everything after it moves along.
 * @param sourceOf what a shot takes its pictures from; null where that is gone
 */
export function planReel(
  shots: readonly ShotToPlan[],
  rate: Rate,
  sourceOf: (shot: ShotToPlan) => ShotSource | null,
): ReelPlan {
  const stretches = shots.map((shot) => stretchOf(shot.body, sourceOf(shot), rate));
  const overlaps = overlapsOf(
    shots.map(({ body }) => body.join),
    stretches.map(({ frames }) => frames),
    rate,
  );
  let end = 0;
  const planned = shots.map(({ id, body }, index): PlannedShot => {
    const [stretch, overlap] = [stretches[index]!, overlaps[index]!];
    const start = end - overlap;
    end = start + stretch.frames;
    return { id, index, start, overlap, join: index > 0 ? (body.join ?? null) : null, ...stretch };
  });
  return { rate, frames: end, shots: planned };
}

/**
 * Frames that each shot shares with the one before it: as many as its join wants and as both have to give. Each keeps one
 * for itself, and none is shared by three.
 * @param lengths frames
 */
export function overlapsOf(joins: readonly (Join | undefined)[], lengths: readonly number[], rate: Rate): number[] {
  const overlaps: number[] = [];
  lengths.forEach((frames, i) => {
    const join = joins[i];
    const left = i > 0 ? lengths[i - 1]! - overlaps[i - 1]! - 1 : 0;
    const wanted = join && join.kind !== 'dip' ? frameCount(join.seconds, rate) : 0;
    overlaps.push(Math.max(0, Math.min(wanted, frames - 1, left)));
  });
  return overlaps;
}

type Stretch = Pick<PlannedShot, 'frames' | 'from' | 'to' | 'backwards' | 'speed' | 'spare' | 'lost'>;

/** What of its source a shot shows, and for how long. */
function stretchOf({ use, seconds }: ShotToPlan['body'], source: ShotSource | null, rate: Rate): Stretch {
  const held = frameCount(seconds ?? FIRST_HOLD, rate);
  const still = {
    from: 0,
    to: frameTime(held, rate),
    backwards: false,
    speed: 1,
    spare: { before: 0, after: Infinity },
    frames: held,
  };
  if (!hasStretch(use)) return { ...still, lost: source ? null : 'gone' };
  if (!source) return { ...still, lost: 'gone' };
  const last = source.loops ? Infinity : source.duration;
  const end = use.to ?? source.duration;
  const from = Math.min(use.from, Math.max(0, last - SHORTEST));
  const to = Math.max(from + SHORTEST, Math.min(end, last));
  const length = to - from;
  // Shots are whole frames; one that was given a length goes through its stretch in exactly those.
  const frames = frameCount(seconds ?? length, rate);
  const lost = use.from > last - SHORTEST || (use.to !== undefined && use.to > last + SHORTEST) ? 'shorter' : null;
  return {
    from,
    to,
    backwards: use.backwards ?? false,
    speed: seconds === undefined ? 1 : length / frameTime(frames, rate),
    frames,
    spare: { before: from, after: Math.max(0, last - to) },
    lost,
  };
}

/** A shot planned anew at its place: with another body, or another source; what it shares with the one before it stays. */
export function replanned(
  { id, overlap, start, index, join }: PlannedShot,
  body: ShotToPlan['body'],
  source: ShotSource | null,
  rate: Rate,
): PlannedShot {
  const [planned] = planReel([{ id, body }], rate, () => source).shots;
  return { ...planned!, overlap, start, index, join };
}

/** Seconds into the source that a time of a shot shows. @param seconds since the first frame of the shot */
export function sourceTime(
  { from, to, backwards, speed }: Pick<PlannedShot, 'from' | 'to' | 'backwards' | 'speed'>,
  seconds: number,
): number {
  return backwards ? to - seconds * speed : from + seconds * speed;
}

/** What a frame of a reel shows. */
export interface ShownAt {
  shot: PlannedShot;
  /** The shot that takes over meanwhile, and how far it has, 0…1. */
  next: { shot: PlannedShot; part: number } | null;
  /** A colour over everything, and how much of it, 0…1. */
  veil: { to: 'paper' | 'black'; part: number } | null;
}

/** @param frame of the reel, perhaps between two; outside it is held at its ends. Null for a reel without shots */
export function shownAt(plan: ReelPlan, frame: number): ShownAt | null {
  const { shots } = plan;
  if (shots.length === 0) return null;
  const at = Math.min(Math.max(0, frame), plan.frames - 1e-9);
  const index = shotIndexAt(plan, at);
  const shot = shots[index]!;
  const after = shots[index + 1];
  const next =
    after && after.overlap > 0 && at >= after.start
      ? { shot: after, part: Math.min(1, (at - after.start) / after.overlap) }
      : null;
  return { shot, next, veil: veilAt(plan, index, at) };
}

/** Index of the shot that is on at a frame; of two that share it, the earlier one. Found in few steps: O(log n). */
export function shotIndexAt({ shots }: ReelPlan, frame: number): number {
  let [low, high] = [0, shots.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    const { start, frames } = shots[middle]!;
    if (start + frames <= frame) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Frames from which on a shot goes to the colour of a dip beside it, or comes back from it. @param frames of the shot */
export const halfDip = (join: Join, frames: number, rate: Rate): number =>
  Math.min(frameCount(join.seconds, rate), frames) / 2;

/** A dip goes to its colour in the last half of its time before the join, and back in the first half after it. */
function veilAt({ shots, rate }: ReelPlan, index: number, frame: number): ShownAt['veil'] {
  const shot = shots[index]!;
  const into = shots[index + 1];
  const veil = (join: Join | null | undefined, away: number): ShownAt['veil'] => {
    if (join?.kind !== 'dip') return null;
    const half = halfDip(join, shot.frames, rate);
    return away < half ? { to: join.to ?? 'black', part: 1 - away / half } : null;
  };
  return veil(shot.join, frame - shot.start) ?? veil(into?.join, shot.start + shot.frames - frame);
}
