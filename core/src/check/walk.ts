import type { Vec3 } from '../document/index.ts';
import type { CompiledWalk } from '../move/index.ts';
import { turnFindings, TURN_LIMITS } from './turn.ts';
import { wayFindings, type WayFinding } from './way.ts';

/** Faster than people walk, m/s, with some room for a walk that has to arrive in time (common practice: 0.8 to 1.4). */
export const HASTE = 1.45;

/** Something that would spoil a move, before it is rendered. */
export interface Finding {
  rule: WayFinding['rule'] | 'haste' | 'turn' | 'not looked at';
  severity: 'note' | 'problem';
  /** seconds */
  from: number;
  to: number;
  /** Stations, metres; null for what is not a matter of place. */
  stretch: [from: number, to: number] | null;
  /** When it is worst, seconds; null for what holds all the time. */
  at: number | null;
  /** In the rule's own unit (metres, m/s, radians a second); null where there is nothing to measure. */
  worst: number | null;
  limit: number | null;
  point: Vec3 | null;
}

/** Everything that the checks know of a walk: problems first, each in the order of the way. */
export function checkWalk(walk: CompiledWalk): Finding[] {
  const all = { from: 0, to: walk.duration, stretch: null, at: null, point: null };
  const findings: Finding[] = wayFindings(walk).map(({ rule, from, to, size, point }) => ({
    rule,
    severity: 'problem',
    from: walk.timeAt(from),
    to: walk.timeAt(to),
    stretch: [from, to],
    at: walk.timeAt(from),
    worst: size,
    limit: null,
    point,
  }));
  // A check that did not look must not look as if it had.
  if (!walk.knowsObstacles)
    findings.push({ ...all, rule: 'not looked at', severity: 'note', worst: null, limit: null });
  if (walk.pace.cruise > HASTE)
    findings.push({ ...all, rule: 'haste', severity: 'problem', worst: walk.pace.cruise, limit: HASTE });
  for (const { severity, from, to, worst, at } of turnFindings(walk))
    findings.push({
      rule: 'turn',
      severity,
      from,
      to,
      stretch: null,
      at,
      worst,
      limit: TURN_LIMITS[severity],
      point: null,
    });
  const of = (wanted: Finding['severity']) => findings.filter(({ severity }) => severity === wanted);
  return [...of('problem'), ...of('note')];
}
