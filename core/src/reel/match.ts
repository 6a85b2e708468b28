import { hasStretch, type ShotBody } from '../document/index.ts';
import type { CutFlow } from './cut-flow.ts';
import { endRoom, reversed, slipped, startRoom, stretchedTo, trimEnd, trimStart } from './edit-shot.ts';
import { flowOverJoin, type FlowMeasure, type OwnShot } from './joins.ts';
import { replanned, type ShotSource } from './plan.ts';
import { frameCount } from './timecode.ts';

/** What would let movement carry over a join better. */
export type MatchKind =
  | 'end earlier or later'
  | 'begin earlier or later'
  | 'slip the first'
  | 'slip the second'
  | 'reverse the first'
  | 'reverse the second'
  | 'swap'
  | 'pace of the first'
  | 'pace of the second'
  | 'even pace of the first'
  | 'even pace of the second';

export interface Match {
  kind: MatchKind;
  /** Frames on (or back, below zero), or the factor of the pace; null where there is no amount. */
  by: number | null;
  /** The shots as they would be; a swap changes their places only. */
  changes: readonly { id: string; body: ShotBody }[];
  /** The join as it would be. */
  flow: CutFlow;
  /** By how many frames the reel becomes longer, or shorter below zero. */
  longer: number;
  /** By how much the joins beside it carry better, or worse below zero. */
  beside: number;
}

export interface MatchQuestion {
  before: OwnShot;
  after: OwnShot;
  /** Their neighbours at the outer sides. */
  outer: { before: OwnShot | null; after: OwnShot | null };
  sourceOf: (id: string) => ShotSource | null;
  measure: FlowMeasure;
  /** Only what leaves the reel as long as it is. */
  keepLength: boolean;
  /** A shot whose move goes at one pace all the way; null where it cannot. */
  evenPaced?: (shot: OwnShot) => OwnShot | null;
}

/** Trims and slips are tried this far, seconds, in so many steps to either side. */
const REACH = 2;
const STEPS = 10;
/** A pace is changed at most so much, either way, for a join (common practice, no source). */
const MOST_PACE = 1.6;
/** A proposal that gains less is none. */
const GAIN = 0.02;

/** What would let a join carry better, the best first; none of it is worse than what there is. */
export function matchJoin(question: MatchQuestion): Match[] {
  const { before, after, measure, keepLength } = question;
  const now = flowOverJoin(before, after, measure);
  const outerNow = outerScores(question, before, after);
  const best = new Map<MatchKind, Match>();
  const consider = (kind: MatchKind, by: number | null, a: OwnShot | null, b: OwnShot | null) => {
    if (!a || !b) return;
    const longer = lengthOf(a, b) - lengthOf(before, after);
    if (keepLength && longer !== 0) return;
    const flow = flowOverJoin(a, b, measure);
    const beside = outerScores(question, a, b) - outerNow;
    const gain = flow.score - now.score;
    // What one join gains its neighbours must not lose.
    if (gain < GAIN || gain + beside <= 0) return;
    const held = best.get(kind);
    if (held && held.flow.score + held.beside >= flow.score + beside) return;
    const changes = [a, b].flatMap((shot) => {
      const old = shot.planned.id === before.planned.id ? before : after;
      return old.body === shot.body ? [] : [{ id: shot.planned.id, body: shot.body }];
    });
    best.set(kind, { kind, by, changes, flow, longer, beside });
  };
  for (const frames of stepsOf(measure)) {
    if (!keepLength) {
      consider('end earlier or later', frames, trimmed(question, before, 'end', frames), after);
      consider('begin earlier or later', frames, before, trimmed(question, after, 'start', frames));
    }
    consider('slip the first', frames, changed(question, before, slipped(before, frames, measure.rate)), after);
    consider('slip the second', frames, before, changed(question, after, slipped(after, frames, measure.rate)));
  }
  consider('reverse the first', null, changed(question, before, reversed(before.body)), after);
  consider('reverse the second', null, before, changed(question, after, reversed(after.body)));
  // Who is joined by more than a cut is joined to this very one.
  if (!before.body.join && !after.body.join) consider('swap', null, after, before);
  pacesOf(now, question, consider);
  consider('even pace of the first', null, question.evenPaced?.(before) ?? null, after);
  consider('even pace of the second', null, before, question.evenPaced?.(after) ?? null);
  return [...best.values()].sort((a, b) => b.flow.score + b.beside - (a.flow.score + a.beside));
}

type Consider = (kind: MatchKind, by: number | null, a: OwnShot | null, b: OwnShot | null) => void;

/** Either of the two as fast as the other one is at the join. */
function pacesOf(now: CutFlow, question: MatchQuestion, consider: Consider): void {
  const { before, after } = question;
  if (now.before <= 0 || now.after <= 0) return;
  const factor = now.before / now.after;
  const bounded = (f: number) => Math.min(MOST_PACE, Math.max(1 / MOST_PACE, f));
  consider('pace of the second', bounded(factor), before, paced(question, after, bounded(factor), 'end'));
  consider('pace of the first', bounded(1 / factor), paced(question, before, bounded(1 / factor), 'start'), after);
}

/** A shot so many times as fast. Where the reel is to stay as long as it is, it shows more or less of its move at an end. */
function paced(question: MatchQuestion, shot: OwnShot, factor: number, free: 'start' | 'end'): OwnShot | null {
  const { planned, body } = shot;
  if (!hasStretch(body.use)) return null;
  const { rate } = question.measure;
  if (!question.keepLength) return changed(question, shot, stretchedTo(shot, planned.frames / factor, rate));
  const length = (planned.to - planned.from) * factor;
  const more = length - (planned.to - planned.from);
  // Which end of the source the free end of the shot is.
  const atEnd = (free === 'end') !== planned.backwards;
  if (more > (atEnd ? planned.spare.after : planned.spare.before)) return null;
  const use = atEnd
    ? { ...body.use, from: planned.from, to: planned.to + more }
    : { ...body.use, from: planned.from - more, to: planned.to };
  return changed(question, shot, { ...stretchedTo(shot, planned.frames, rate), use });
}

function trimmed(question: MatchQuestion, shot: OwnShot, edge: 'start' | 'end', frames: number): OwnShot | null {
  const { rate } = question.measure;
  const room = edge === 'end' ? endRoom(shot, rate) : startRoom(shot, rate);
  if (frames < room.earlier || frames > room.later) return null;
  // A trim is for a join; a shot that loses half of itself for one is another shot.
  const cut = edge === 'end' ? -frames : frames;
  if (cut > shot.planned.frames / 2) return null;
  return changed(question, shot, edge === 'end' ? trimEnd(shot, frames, rate) : trimStart(shot, frames, rate));
}

/** A shot with another body. */
function changed({ sourceOf, measure }: MatchQuestion, shot: OwnShot, body: ShotBody): OwnShot | null {
  if (body === shot.body) return null;
  const { planned } = shot;
  return { ...shot, body, planned: replanned(planned, body, sourceOf(planned.id), measure.rate) };
}

const lengthOf = (a: OwnShot, b: OwnShot): number => a.planned.frames + b.planned.frames;

function outerScores({ outer, measure }: MatchQuestion, a: OwnShot, b: OwnShot): number {
  const before = outer.before ? flowOverJoin(outer.before, a, measure).score : 0;
  const after = outer.after ? flowOverJoin(b, outer.after, measure).score : 0;
  return before + after;
}

function stepsOf({ rate }: FlowMeasure): number[] {
  const step = Math.max(1, frameCount(REACH / STEPS, rate));
  return Array.from({ length: STEPS }, (_, i) => (i + 1) * step).flatMap((frames) => [frames, -frames]);
}
