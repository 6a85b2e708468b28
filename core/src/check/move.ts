import { FIRST_WALKER, type CheckLimits, type Vec3, type Walker } from '../document/index.ts';
import { toDegrees } from '../geometry/index.ts';
import type { CompiledMove } from '../move/index.ts';
import type { Footing } from '../survey/index.ts';
import { tightPlaces } from './clearance.ts';
import { problemsFirst, type Severity } from './severity.ts';
import { passages } from './through.ts';
import { turnFindings } from './turn.ts';
import { wayFindings, type WayFinding } from './way.ts';

/** Something that would spoil a move, before it is rendered. */
export interface Finding {
  rule: WayFinding['rule'] | 'clearance' | 'haste' | 'turn' | 'gaze off' | 'through' | 'key lost' | 'not looked at';
  severity: Severity;
  /** seconds */
  from: number;
  to: number;
  /** Stations, metres; null for what is not a matter of place. */
  stretch: [from: number, to: number] | null;
  /** When it is worst, seconds; null for what holds all the time. */
  at: number | null;
  /** In the rule's own unit (metres, m/s, degrees a second); null where there is nothing to measure. */
  worst: number | null;
  limit: number | null;
  point: Vec3 | null;
  /** What would mend it: going at this part of the speed, or leading the path clear. Null where only a person can. */
  fix: { kind: 'slower'; factor: number } | { kind: 'clear'; stretch: [from: number, to: number] } | null;
  /** The strip that it shows in. */
  channel: string | null;
}

/** An eye that cannot follow is offered this part of the speed. */
const GAZE_TEMPO = 0.75;

/** What is so near to something that is gone through belongs to it, metres. */
const BESIDE = 0.6;

/** Everything that the checks know of a move: problems first, each in the order of time. Reads no kind of move. */
export function checkMove(
  move: CompiledMove,
  footing: Footing,
  limits: CheckLimits,
  walker: Pick<Walker, 'radius' | 'height'> = FIRST_WALKER,
): Finding[] {
  const { path, ground, duration } = move;
  const all = { from: 0, to: duration, stretch: null, at: null, point: null, fix: null, channel: null };
  const findings: Finding[] = [];
  if (path)
    for (const { rule, from, to, size, point } of wayFindings(move)) {
      const [start, end] = [path.timeAt(from), path.timeAt(to)];
      const when = { from: start, to: end, stretch: [from, to] as [number, number], at: start };
      findings.push({
        rule,
        severity: 'problem',
        ...when,
        worst: size,
        limit: null,
        point,
        fix: null,
        channel: 'section',
      });
    }
  if (path) {
    // What is gone through is said already.
    const met = findings.map(({ stretch }) => stretch!);
    for (const { severity, from, to, worst, station, point } of tightPlaces(move, footing, walker)) {
      if (met.some(([a, b]) => from < b + BESIDE && to > a - BESIDE)) continue;
      findings.push({
        ...all,
        rule: 'clearance',
        severity,
        from: path.timeAt(from),
        to: path.timeAt(to),
        stretch: [from, to],
        at: path.timeAt(station),
        worst,
        limit: walker.radius,
        point,
        fix: { kind: 'clear', stretch: [from, to] },
        channel: 'section',
      });
    }
  }
  if (!ground)
    for (const { from, to, point } of passages(move, footing))
      findings.push({
        ...all,
        rule: 'through',
        severity: 'problem',
        from,
        to,
        at: from,
        worst: null,
        limit: null,
        point,
      });
  // A check that did not look must not look as if it had.
  if (!(ground?.knowsObstacles ?? footing.knowsSolids))
    findings.push({ ...all, rule: 'not looked at', severity: 'note', worst: null, limit: null });
  if (ground && path && path.topSpeed > limits.haste) {
    const [worst, limit] = [path.topSpeed, limits.haste];
    const fix = { kind: 'slower' as const, factor: limit / worst };
    findings.push({ ...all, rule: 'haste', severity: 'problem', worst, limit, fix, channel: 'pace' });
  }
  for (const { severity, from, to, worst, at } of turnFindings(move, limits)) {
    const limit = severity === 'problem' ? limits.turnProblem : limits.turnNote;
    const fix = { kind: 'slower' as const, factor: limits.turnNote / toDegrees(worst) };
    findings.push({
      ...all,
      rule: 'turn',
      severity,
      from,
      to,
      at,
      worst: toDegrees(worst),
      limit,
      fix,
      channel: 'turn',
    });
  }
  for (const { from, to, worst, at } of move.gazeOff) {
    // Angles that are missed grow with the speed.
    const fix = { kind: 'slower' as const, factor: GAZE_TEMPO };
    findings.push({
      ...all,
      rule: 'gaze off',
      severity: 'note',
      from,
      to,
      at,
      worst: toDegrees(worst),
      limit: limits.turnProblem,
      fix,
    });
  }
  if (move.lostKeys > 0)
    findings.push({ ...all, rule: 'key lost', severity: 'note', worst: move.lostKeys, limit: null });
  return problemsFirst(findings);
}
