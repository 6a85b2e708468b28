import { Quaternion } from 'three';
import type { Vec3 } from '../document/index.ts';
import { less, toDegrees } from '../geometry/index.ts';
import { SAMPLE_STRIDE, type CompiledMove } from '../move/index.ts';
import { finding, type Finding, type JumpRule } from './finding.ts';

/** A place in time at which a move does not go on as it did. */
export interface Jump {
  rule: JumpRule;
  /** seconds */
  at: number;
  /** How far, in the rule's own unit. */
  size: number;
}

/** How often a move is looked at first, and how near to a jump both its sides are looked at in the end, seconds. */
const FIRST_STEP = 1 / 60;
const INSTANT = 1e-5;
/** Speeds on both sides of an instant are told over so long, seconds. */
const BESIDE = 1 / 1000;
/**
 * What is less than these is seen by nobody, and none of what a move does steadily is that much in {@link INSTANT}:
 * metres, degrees, parts.
 */
const SEEN = { jump: 2e-4, 'turn jump': 0.1, 'lens jump': 0.01 } as const;
/** Speeds change at once by no less than this: a part of the mean speed and metres a second; degrees a second. */
const JERK = { part: 0.5, least: 0.02 };
const TURN_JERK = 15;
/** Of what changed over a step, so much must have changed beside one instant: what only changes quickly has not. */
const AT_ONCE = 0.7;
/** Jumps nearer to each other are one, seconds. */
const ONE = 0.05;

/** One camera, as numbers. */
interface Seen {
  position: Vec3;
  orientation: Quaternion;
  focal: number;
}

/**
 * Where a move jumps: in place, direction or lens from one instant to the next, or in how fast it goes or turns. Reads
 * samples only, so it holds for every kind of move.
 */
export function jumpsOf(move: Pick<CompiledMove, 'duration' | 'fill'>): Jump[] {
  const { duration } = move;
  const steps = Math.max(2, Math.ceil(duration / FIRST_STEP));
  const step = duration / steps;
  if (!(step > 0)) return [];
  const times = Float64Array.from({ length: steps + 1 }, (_, i) => i * step);
  const out = new Float64Array(SAMPLE_STRIDE * (steps + 1));
  move.fill(times, out);
  const all = Array.from({ length: steps + 1 }, (_, i) => seenIn(out, i));
  const seenAt = (time: number): Seen => {
    move.fill([Math.min(duration, Math.max(0, time))], out);
    return seenIn(out, 0);
  };
  const legs = all.slice(1).map((now, i) => apart(all[i]!, now));
  const mean = legs.reduce((sum, { place }) => sum + place, 0) / duration;
  const jerky = Math.max(JERK.least, JERK.part * mean);
  const found: Jump[] = [];
  const add = (jump: Jump) => {
    const same = found.find(({ rule, at }) => rule === jump.rule && Math.abs(at - jump.at) < ONE);
    if (!same) found.push(jump);
    else if (jump.size > same.size) Object.assign(same, jump);
  };
  for (let i = 0; i < steps; i += 1) {
    const [before, leg, after] = [legs[Math.max(0, i - 1)]!, legs[i]!, legs[Math.min(steps - 1, i + 1)]!];
    const unlike = (of: 'place' | 'turn') => (leg[of] - Math.max(before[of], after[of])) / step;
    if (unlike('place') > jerky / 4 || unlike('turn') > TURN_JERK / 4 || leg.lens > SEEN['lens jump'])
      jumpWithin(seenAt, i * step, (i + 1) * step).forEach(add);
  }
  const jumps = [...found];
  for (let i = 1; i < steps; i += 1) {
    // Where it is somewhere else at once its speed means nothing.
    if (jumps.some(({ at }) => Math.abs(at - i * step) < ONE)) continue;
    const [before, leg] = [legs[i - 1]!, legs[i]!];
    const changed = (of: 'place' | 'turn') => Math.abs(leg[of] - before[of]) / step;
    if (changed('place') > jerky / 4 || changed('turn') > TURN_JERK / 4 || turnsBack(all, i))
      jerkAbout(seenAt, i * step, { step, duration }, jerky).forEach(add);
  }
  return found.sort((a, b) => a.at - b.at);
}

/** Somebody may want a push. */
const JERKS: ReadonlySet<JumpRule> = new Set(['jerk', 'turn jerk']);
/** The strip in which each is seen, where a move has it. */
const SEEN_IN: Record<JumpRule, string> = {
  jump: 'section',
  'turn jump': 'gaze',
  'lens jump': 'lens',
  jerk: 'pace',
  'turn jerk': 'gaze',
};

/** The jumps of a move, as the checks say them. */
export const jumpFindings = (move: CompiledMove): Finding[] =>
  jumpsOf(move).map(({ rule, at, size }) =>
    finding({
      rule,
      severity: JERKS.has(rule) ? 'note' : 'problem',
      ...{ from: at, to: at, at },
      worst: size,
      channel: move.channels.some(({ id }) => id === SEEN_IN[rule]) ? SEEN_IN[rule] : null,
    }),
  );

function seenIn(out: Float64Array, i: number): Seen {
  const o = i * SAMPLE_STRIDE;
  return {
    position: [out[o]!, out[o + 1]!, out[o + 2]!],
    orientation: new Quaternion(out[o + 3]!, out[o + 4]!, out[o + 5]!, out[o + 6]!),
    focal: out[o + 7]!,
  };
}

const apart = (a: Seen, b: Seen) => ({
  place: Math.hypot(...less(b.position, a.position)),
  turn: toDegrees(a.orientation.angleTo(b.orientation)),
  lens: Math.abs(Math.log(b.focal / a.focal)) || 0,
});

/** Does it go the other way from one step to the next? */
function turnsBack(all: readonly Seen[], i: number): boolean {
  const [a, b] = [less(all[i]!.position, all[i - 1]!.position), less(all[i + 1]!.position, all[i]!.position)];
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2] < 0;
}

/** What jumps within a step: halved until only an instant is left. */
function jumpWithin(seenAt: (time: number) => Seen, from: number, to: number): Jump[] {
  const jumps: Jump[] = [];
  for (const [rule, of] of [
    ['jump', 'place'],
    ['turn jump', 'turn'],
    ['lens jump', 'lens'],
  ] as const) {
    let [a, b] = [from, to];
    let [left, right] = [seenAt(a), seenAt(b)];
    while (b - a > INSTANT && apart(left, right)[of] > SEEN[rule]) {
      const middle = (a + b) / 2;
      const seen = seenAt(middle);
      if (apart(left, seen)[of] > apart(seen, right)[of]) [b, right] = [middle, seen];
      else [a, left] = [middle, seen];
    }
    const size = apart(left, right)[of];
    if (size > SEEN[rule]) jumps.push({ rule, at: b, size });
  }
  return jumps;
}

/** Where speed or turning changes at once about a time: where it changes most, over a shorter and shorter while. */
function jerkAbout(
  seenAt: (time: number) => Seen,
  time: number,
  { step, duration }: { step: number; duration: number },
  jerky: number,
): Jump[] {
  /** How much a speed differs from one side of an instant to the other, which are so far apart. */
  const unlike = (at: number, over: number, gap = 0) => {
    const [a, b] = [seenAt(at - over - gap), seenAt(at - gap)];
    const [c, d] = [seenAt(at + gap), seenAt(at + over + gap)];
    // Turning as vectors: as fast to the right as it was to the left is no less of a jerk.
    const [placed, swung] = [less(b.position, a.position), turned(a, b)];
    return {
      jerk: Math.hypot(...less(less(d.position, c.position), placed)) / over,
      'turn jerk': Math.hypot(...less(turned(c, d), swung)) / over,
    };
  };
  return (['jerk', 'turn jerk'] as const).flatMap((rule) => {
    let [at, over] = [time, step];
    const first = unlike(at, over)[rule];
    while (over > BESIDE) {
      over /= 2;
      // Beyond its ends a move stands: that is no jerk of it.
      const tried = [at - over, at, at + over]
        .filter((one) => one - 2 * over >= 0 && one + 2 * over <= duration)
        .map((one) => ({ one, size: unlike(one, over)[rule] }));
      if (tried.length === 0) return [];
      const best = tried.reduce((most, now) => (now.size > most.size ? now : most));
      if (best.size < AT_ONCE * first) return [];
      at = best.one;
    }
    const size = unlike(at, over, over)[rule];
    return size > (rule === 'jerk' ? jerky : TURN_JERK) ? [{ rule, at, size }] : [];
  });
}

/** The turn from one direction to another, about the axes of space, degrees. */
function turned(a: Seen, b: Seen): Vec3 {
  const by = b.orientation.clone().multiply(a.orientation.clone().invert());
  const sign = by.w < 0 ? -1 : 1;
  const sine = Math.hypot(by.x, by.y, by.z);
  const angle = 2 * Math.atan2(sine, Math.abs(by.w));
  const scale = sine > 1e-12 ? (toDegrees(angle) * sign) / sine : 0;
  return [by.x * scale, by.y * scale, by.z * scale];
}
