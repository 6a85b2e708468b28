import { hasStretch, LONGEST_SHOT, type Rate, type ShotBody } from '../document/index.ts';
import { SHORTEST, type PlannedShot } from './plan.ts';
import { frameTime } from './timecode.ts';

/** A shot as its plan has it, and what is saved of it. */
export interface EditedShot {
  body: ShotBody;
  planned: PlannedShot;
}

/** How many frames an edge may go earlier (negative) and later. */
export interface Room {
  earlier: number;
  later: number;
}

/** Whole frames that so many seconds of the source are; rounding errors of times do not cost one. */
const framesIn = (seconds: number, { speed }: PlannedShot, rate: Rate): number =>
  Math.floor((Math.min(seconds / speed, LONGEST_SHOT) * rate.num) / rate.den + 1e-6);

/** How far the start of a shot may go: into what its move has before it, and up to its last frame. */
export function startRoom({ body, planned }: EditedShot, rate: Rate): Room {
  const held = !hasStretch(body.use);
  const spare = held ? Infinity : planned.backwards ? planned.spare.after : planned.spare.before;
  return { earlier: -framesIn(spare, planned, rate), later: planned.frames - 1 };
}

/** How far the end of a shot may go. */
export function endRoom({ planned }: EditedShot, rate: Rate): Room {
  const spare = planned.backwards ? planned.spare.before : planned.spare.after;
  return { earlier: 1 - planned.frames, later: framesIn(spare, planned, rate) };
}

export const within = (frames: number, { earlier, later }: Room): number =>
  Math.min(later, Math.max(earlier, Math.round(frames)));

/** The body with another stretch of its source, and so many frames of it fewer or more. */
function stretched(
  { body, planned }: EditedShot,
  rate: Rate,
  change: { from?: number; to?: number },
  frames: number,
): ShotBody {
  const { use } = body;
  // What holds, and what was given a length of its own, says its length; a move at its own pace has it from its stretch.
  const seconds = hasStretch(use) && body.seconds === undefined ? {} : { seconds: frameTime(frames, rate) };
  if (!hasStretch(use)) return { ...body, ...seconds };
  const from = Math.max(0, change.from ?? planned.from);
  const to = change.to ?? (use.to === undefined ? undefined : planned.to);
  return { ...body, ...seconds, use: { ...use, from, ...(to !== undefined && { to: Math.max(from + SHORTEST, to) }) } };
}

/**
 * The shot beginning so many frames later in its source (or earlier, below zero), and so much shorter. What comes after
 * it in a reel moves along.
 */
export function trimStart(shot: EditedShot, by: number, rate: Rate): ShotBody {
  const { planned } = shot;
  const frames = within(by, startRoom(shot, rate));
  const source = frameTime(frames, rate) * planned.speed;
  const change = planned.backwards ? { to: planned.to - source } : { from: planned.from + source };
  const left = planned.frames - frames;
  return withDrift(shot, frames, left, stretched(shot, rate, change, left));
}

/** The shot ending so many frames later (or earlier, below zero). */
export function trimEnd(shot: EditedShot, by: number, rate: Rate): ShotBody {
  const { planned } = shot;
  const frames = within(by, endRoom(shot, rate));
  const source = frameTime(frames, rate) * planned.speed;
  const change = planned.backwards ? { from: planned.from - source } : { to: planned.to + source };
  const left = planned.frames + frames;
  return withDrift(shot, 0, left, stretched(shot, rate, change, left));
}

/** A held view goes as fast as before, and from where it was by then. @param cut frames that were cut at its start */
function withDrift({ planned }: EditedShot, cut: number, frames: number, body: ShotBody): ShotBody {
  if (body.use.kind !== 'view' || !body.use.drift) return body;
  const { gone: before = 0, ...drift } = body.use.drift;
  const perFrame = drift.distance / planned.frames;
  const gone = before + perFrame * cut;
  return {
    ...body,
    use: { ...body.use, drift: { ...drift, distance: perFrame * frames, ...(gone !== 0 && { gone }) } },
  };
}

/** Two shots with the cut between them so many frames later: the reel stays as long as it is. */
export function rolled(
  before: EditedShot,
  after: EditedShot,
  by: number,
  rate: Rate,
): { before: ShotBody; after: ShotBody } {
  const [end, start] = [endRoom(before, rate), startRoom(after, rate)];
  const frames = within(by, {
    earlier: Math.max(end.earlier, start.earlier),
    later: Math.min(end.later, start.later),
  });
  return { before: trimEnd(before, frames, rate), after: trimStart(after, frames, rate) };
}

/** The same length of another stretch of its move, so many frames on. */
export function slipped(shot: EditedShot, by: number, rate: Rate): ShotBody {
  const { body, planned } = shot;
  if (!hasStretch(body.use)) return body;
  const [before, after] = [framesIn(planned.spare.before, planned, rate), framesIn(planned.spare.after, planned, rate)];
  const on = planned.backwards ? -by : by;
  const source = frameTime(within(on, { earlier: -before, later: after }), rate) * planned.speed;
  return { ...body, use: { ...body.use, from: Math.max(0, planned.from + source), to: planned.to + source } };
}

/** Where a shot may be split, so that no join loses what it shares: frames of the shot. @param after what follows it */
export function splitRoom({ planned }: EditedShot, after: PlannedShot | undefined): Room {
  return { earlier: planned.overlap + 1, later: planned.frames - 1 - (after?.overlap ?? 0) };
}

/** The two shots that a cut before its frame `at` makes of one: frame by frame the same pictures. */
export function splitShot(shot: EditedShot, at: number, rate: Rate): [ShotBody, ShotBody] {
  const { join: _, ...rest } = trimStart(shot, at, rate);
  return [trimEnd(shot, at - shot.planned.frames, rate), rest];
}

/** The shot so many frames long: its move goes faster or slower, whatever it shows. */
export function stretchedTo({ body }: EditedShot, frames: number, rate: Rate): ShotBody {
  return { ...body, seconds: frameTime(Math.max(1, Math.round(frames)), rate) };
}

/** The shot at the pace of its move again. */
export function atItsPace({ seconds: _, ...body }: ShotBody): ShotBody {
  return body;
}

/** The shot the other way round; its stretch stays. */
export function reversed(body: ShotBody): ShotBody {
  if (!hasStretch(body.use)) return body;
  const { backwards, ...use } = body.use;
  return { ...body, use: backwards ? use : { ...use, backwards: true } } as ShotBody;
}
