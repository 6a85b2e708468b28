import { Quaternion } from 'three';
import type { CheckLimits } from '../document/index.ts';
import { toRadians } from '../geometry/index.ts';
import type { CompiledMove } from '../move/index.ts';

/** Apart from each other by less, two stretches are one, seconds. */
const JOINED = 0.5;
/** How often the camera is asked, seconds. */
const INSTANT = 0.04;
/** A turn at the very limit is within it: what bounds turning holds it to that within a fiftieth. */
const SLACK = 1.02;

/** A stretch of a move in which the camera turns too fast. */
export interface TurnFinding {
  severity: 'note' | 'problem';
  /** seconds */
  from: number;
  to: number;
  /** Fastest turning in it, radians a second, and when that is. */
  worst: number;
  at: number;
}

/** Where a move turns faster than people can follow. Reads samples only, so it holds for every kind of move. */
export function turnFindings(
  move: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  { turnNote, turnProblem }: Pick<CheckLimits, 'turnNote' | 'turnProblem'>,
): TurnFinding[] {
  const { duration } = move;
  const findings: TurnFinding[] = [];
  const before = new Quaternion();
  const now = new Quaternion();
  const steps = Math.max(1, Math.ceil(duration / INSTANT));
  const step = duration / steps;
  for (let i = 0; i <= steps && step > 0; i += 1) {
    now.fromArray(move.sampleAt(i * step).orientation);
    const rate = i === 0 ? 0 : before.angleTo(now) / step;
    before.copy(now);
    if (rate <= SLACK * toRadians(turnNote)) continue;
    const [from, to] = [(i - 1) * step, i * step];
    const last = findings.at(-1);
    if (!last || from - last.to > JOINED) {
      findings.push({ severity: 'note', from, to, worst: rate, at: (from + to) / 2 });
      continue;
    }
    last.to = to;
    if (rate > last.worst) Object.assign(last, { worst: rate, at: (from + to) / 2 });
  }
  for (const finding of findings) if (finding.worst > SLACK * toRadians(turnProblem)) finding.severity = 'problem';
  return findings;
}
