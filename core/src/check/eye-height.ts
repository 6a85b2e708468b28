import type { CheckLimits } from '../document/index.ts';
import { liftLine, type CompiledMove } from '../move/index.ts';
import { finding, type Finding } from './finding.ts';

/** How often it is looked at, seconds. */
const INSTANT = 0.1;
/** Less than this is within a limit, metres: what a stair does to a smoothed line. */
const SLACK = 0.12;

/** Where who walks has the eyes higher or lower over the floor than people have them. */
export function eyeHeightFindings(
  move: CompiledMove,
  { eyeLow, eyeHigh }: Pick<CheckLimits, 'eyeLow' | 'eyeHigh'>,
): Finding[] {
  const line = liftLine(move);
  if (!line?.under || !move.ground) return [];
  const found: Finding[] = [];
  const steps = Math.max(1, Math.ceil(move.duration / INSTANT));
  for (let i = 0; i <= steps; i += 1) {
    const time = (move.duration * i) / steps;
    const height = line.at(time) - line.under.at(time);
    const limit = height < eyeLow - SLACK ? eyeLow : height > eyeHigh + SLACK ? eyeHigh : null;
    if (limit === null) continue;
    const last = found.at(-1);
    if (last?.limit === limit && time - last.to < 2.5 * INSTANT) {
      last.to = time;
      if (Math.abs(height - limit) > Math.abs(last.worst! - limit)) Object.assign(last, { worst: height, at: time });
    } else
      found.push(
        finding({
          rule: 'eye height',
          severity: 'note',
          from: time,
          to: time,
          at: time,
          worst: height,
          limit,
          fix: { kind: 'eyes', low: eyeLow, high: eyeHigh },
          channel: 'section',
        }),
      );
  }
  return found;
}
