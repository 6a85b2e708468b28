import { Quaternion } from 'three';
import type { CheckLimits } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { viewAngles } from '../optics/index.ts';
import { finding, type Finding } from './finding.ts';

/** How often the camera is asked, seconds. */
const INSTANT = 0.04;
/** Who moves slower than this stands, m/s. */
const STANDS = 0.15;
/** Who goes along a circle of at least this part of the distance to what is looked at goes round it, however small that is. */
const ROUND = 0.4;
/** A pan over less of the picture's width is a glance. */
const GLANCE = 0.5;
/** Apart from each other by less, two stretches are one, seconds. */
const JOINED = 0.3;

/**
 * Where a camera that stands pans so fast that a thing crosses the picture in less than some seconds: at 24 frames a
 * second such pans flicker (the seven-second rule; common practice, no source).
 */
export function crossingFindings(
  move: Pick<CompiledMove, 'duration' | 'sampleAt' | 'looks'>,
  { crossing }: Pick<CheckLimits, 'crossing'>,
  aspect: number,
): Finding[] {
  const { duration } = move;
  const steps = Math.max(1, Math.ceil(duration / INSTANT));
  const step = duration / steps;
  const stretches: { from: number; to: number; angle: number; fastest: number; width: number; at: number }[] = [];
  let before = move.sampleAt(0);
  const [was, is] = [new Quaternion(), new Quaternion()];
  for (let i = 1; i <= steps; i += 1) {
    const now = move.sampleAt(i * step);
    const speed = Math.hypot(...now.position.map((value, k) => value - before.position[k]!)) / step;
    const turned = was.fromArray(before.orientation).angleTo(is.fromArray(now.orientation));
    before = now;
    if (speed > STANDS || now.view.kind !== 'lens') continue;
    const width = viewAngles(now.view, aspect).horizontal;
    if (turned / step <= (1.02 * width) / crossing) continue;
    // Whoever follows something that moves looks at that, not at what goes by behind it.
    const held = move.looks.some((look) => {
      if (look.from > i * step || look.to < i * step) return false;
      const away = () => Math.hypot(...look.at(i * step).map((value, k) => value - now.position[k]!));
      return look.moves || speed > ROUND * away() * (turned / step);
    });
    if (held) continue;
    const last = stretches.at(-1);
    if (!last || i * step - last.to > JOINED) {
      stretches.push({
        from: (i - 1) * step,
        to: i * step,
        angle: turned,
        fastest: turned / step,
        width,
        at: i * step,
      });
      continue;
    }
    last.to = i * step;
    last.angle += turned;
    if (turned / step > last.fastest) Object.assign(last, { fastest: turned / step, at: i * step, width });
  }
  return stretches
    .filter(({ angle, width }) => angle > GLANCE * width)
    .map(({ from, to, fastest, width, at }) =>
      finding({
        rule: 'crossing',
        severity: 'note',
        from,
        to,
        at,
        worst: width / fastest,
        limit: crossing,
        channel: 'gaze',
      }),
    );
}
