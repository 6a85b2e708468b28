import { Quaternion } from 'three';
import {
  LONGEST_HAND_OVER,
  PACE_LIMITS,
  type CheckLimits,
  type Glide,
  type MoveBody,
  type Orbit,
  type Walk,
  type Walker,
} from '../document/index.ts';
import { toRadians } from '../geometry/index.ts';
import { anchorAtTime, atTempo, slowerSpans, type CompiledMove } from '../move/index.ts';
import { changePaceItem, MINIMUM_JERK_PEAK, otherPace } from '../pace/index.ts';
import type { Footing } from '../survey/index.ts';
import { moveClear, type WayWalker } from '../wayfind/index.ts';
import type { Fix } from './finding.ts';
import { turnedBy } from './turning.ts';

/** What mending a move needs to know besides the move. */
export interface MendSite {
  /** The move as the finding found it. */
  move: CompiledMove;
  /** Null while it is not known: then no path is led. */
  footing: Footing | null;
  walker: Walker & Omit<WayWalker, 'eyeHeight'>;
  limits: Pick<CheckLimits, 'turnNote'>;
  newId: () => string;
}

type Paced = Walk | Glide;
type Looking = Exclude<MoveBody, Orbit>;
type FixOf<K extends Fix['kind']> = Extract<Fix, { kind: K }>;

/** A move with a finding mended. What cannot be mended so stays as it is. */
export function mended(body: MoveBody, fix: Fix, site: MendSite): MoveBody {
  if (fix.kind === 'slower') return atTempo(body, fix.factor);
  switch (fix.kind) {
    case 'clear': {
      if (!site.footing || body.kind !== 'walk') return body;
      const walker = { ...site.walker, eyeHeight: body.eyeHeight };
      return { ...body, path: moveClear(body.path, fix.stretch, site.footing, walker, site.newId) };
    }
    case 'eyes':
      return body.kind === 'walk' ? withEyes(body, fix) : body;
    case 'slower here':
      return 'pace' in body ? slowerHere(body, fix, site) : body;
    case 'softer turn':
      return 'gaze' in body ? softerTurn(body, fix, site) : body;
    case 'more time':
      return body.kind === 'travel' ? slowerSpans(body, fix.from, fix.to, fix.factor) : body;
  }
}

/** Holds the eyes of a walk, and what lifts them, within heights over the floor. */
function withEyes(body: Walk, { low, high }: FixOf<'eyes'>): Walk {
  const eyeHeight = Math.min(high, Math.max(low, body.eyeHeight));
  const lift = body.tracks?.lift?.map((key) => ({
    ...key,
    value: Math.min(high - eyeHeight, Math.max(low - eyeHeight, key.value)),
  }));
  return { ...body, eyeHeight, ...(lift && { tracks: { ...body.tracks, lift } }) };
}

/** A slow place begins and ends so far before and after what is to be slow, metres. */
const AROUND = 0.4;

function slowerHere(
  body: Paced,
  { stretch: [from, to], factor }: FixOf<'slower here'>,
  { move, newId }: MendSite,
): Paced {
  const { path } = move;
  if (!path) return body;
  const middle = (from + to) / 2;
  const pace = move.channels.find(({ id }) => id === 'pace');
  const speed = Math.max(PACE_LIMITS.speed[0], (pace?.at(path.timeAt(middle)) ?? body.pace.speed) * factor);
  const length = to - from + 2 * AROUND;
  const marks = body.pace.marks ?? [];
  // One slow place is made slower, not laid over by another.
  const there = pace?.items?.find(
    (item) => item.kind === 'mark' && item.from <= path.timeAt(middle) && item.to >= path.timeAt(middle),
  );
  if (there) return { ...body, pace: changePaceItem(body.pace, there.id, { speed: (there.value ?? speed) * factor }) };
  const mark = { id: newId(), anchor: path.anchorAt(middle), length: Math.max(PACE_LIMITS.length[0], length), speed };
  return { ...body, pace: otherPace(body.pace, { marks: [...marks, mark] }) };
}

/** A stay gets so much more than its turn needs, seconds. */
const MORE_STAY = 0.5;
/** Of a limit so much is used: what is looked at goes by meanwhile. */
const SPARE = 0.9;
/** A turn that is held to its bounds comes so much later than it was asked for, seconds. */
const LATE = 3;

/** How far a move turns about a time at which it hands over, radians. */
function turnAbout(move: CompiledMove, time: number, handOver: number): number {
  const at = (when: number) => new Quaternion(...move.sampleAt(Math.min(move.duration, Math.max(0, when))).orientation);
  const reach = handOver + LATE;
  return at(time - reach).angleTo(at(time + reach));
}

/** Turns to and from what is looked at, or on the spot, are given more time. */
function softerTurn<B extends Exclude<MoveBody, { kind: 'orbit' }>>(
  body: B,
  { from, to, factor }: FixOf<'softer turn'>,
  { move, limits }: MendSite,
): Looking {
  const { path, duration } = move;
  const met = turnedBy(move, { from, to });
  const gazes = met.filter(({ kind }) => kind === 'gaze');
  if (gazes.length > 0 && path) {
    const gazeSpans = body.gazeSpans?.map((span) => {
      const item = gazes.find(({ id }) => id === span.id);
      if (!item) return span;
      const turned = Math.max(turnAbout(move, item.from, span.handOver), turnAbout(move, item.to, span.handOver));
      const needed = (MINIMUM_JERK_PEAK * turned) / (SPARE * toRadians(limits.turnNote));
      const handOver = Math.min(LONGEST_HAND_OVER, Math.max(needed, span.handOver / Math.max(factor, SPARE)));
      const more = handOver - span.handOver;
      return {
        ...span,
        handOver,
        from: anchorAtTime(path, Math.max(0, item.from - more)),
        to: anchorAtTime(path, Math.min(duration, item.to + more)),
      };
    });
    return { ...body, ...(gazeSpans && { gazeSpans }) };
  }
  const stays = met.filter(({ kind }) => kind === 'pause');
  if (!('pace' in body)) return body;
  return stays.reduce<Paced>((now, { id, from: begins, to: ends }) => {
    const seconds = ends - begins + (to - from) * (1 / factor - 1) + MORE_STAY;
    return { ...now, pace: changePaceItem(now.pace, id, { seconds }) };
  }, body);
}
