import { checkMove, type Finding } from '@eskovan/core/check';
import { frameTime } from '@eskovan/core/reel';
import type { ReelWork } from './reel-work.ts';

/** A finding of a move where a reel uses it. */
export interface ShotFinding {
  shot: string;
  /** Seconds of the reel. */
  from: number;
  to: number;
  finding: Finding;
}

/** What is found in a move is asked once for each version of it: it is the slow part. */
const checked = new WeakMap<object, readonly Finding[]>();

/** What the checks find in those stretches of moves that the shots show, in the reel's time. */
export function findingsOfShots(work: ReelWork): ShotFinding[] {
  const { plan } = work.reel;
  const { footing } = work;
  if (!footing) return [];
  return plan.shots.flatMap((planned): ShotFinding[] => {
    const move = work.compiledOf(planned.id);
    if (!move) return [];
    const { limits, walker, aspect } = work.siteOf();
    const found = checked.get(move) ?? checkMove(move, footing, limits, walker, aspect, work.movers);
    checked.set(move, found);
    const start = frameTime(planned.start, plan.rate);
    const shown = (time: number) => (planned.backwards ? planned.to - time : time - planned.from) / planned.speed;
    return found.flatMap((finding) => {
      const [a, b] = [finding.from, Math.max(finding.from, finding.to)];
      if (b < planned.from || a > planned.to) return [];
      const times = [Math.max(a, planned.from), Math.min(b, planned.to)].map(shown).sort((x, y) => x - y);
      return [{ shot: planned.id, from: start + times[0]!, to: start + times[1]!, finding }];
    });
  });
}
