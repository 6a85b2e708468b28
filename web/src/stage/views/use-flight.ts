import type { Pose } from '@eskovan/core/document';
import { minimumJerk } from '@eskovan/core/geometry';
import { useEffect, useRef, useState } from 'react';
import { blendPoses } from '../../picture/eye.ts';

/** Who chose a view wants to see it, not the way to it. */
const SECONDS = 0.35;

interface Flight {
  /** What is flown to; another key with the same target is another one. */
  key: string | null;
  target: Pose | null;
  from: () => Pose | null;
  /** May it be flown from one place to the other? */
  free: (from: Pose, to: Pose) => boolean;
}

/**
 * The eye on its way: when the target becomes another one, it flies there from where it was. With reduced motion, and
 * where a wall is in between, it is there at once.
 */
export function useFlight({ key, target, from, free }: Flight): Pose | null {
  const [pose, setPose] = useState<Pose | null>(target);
  const last = useRef<string | null>(key);
  const shown = useRef<Pose | null>(target);
  useEffect(() => {
    if (!target) return;
    const start = from() ?? shown.current;
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    const put = (next: Pose) => {
      shown.current = next;
      setPose(next);
    };
    if (last.current === key || !start || still || !free(start, target)) {
      last.current = key;
      put(target);
      return;
    }
    last.current = key;
    const began = performance.now();
    let loop = requestAnimationFrame(function step(now) {
      const part = Math.min(1, (now - began) / 1000 / SECONDS);
      put(part < 1 ? blendPoses(start, target, minimumJerk(part)) : target);
      if (part < 1) loop = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(loop);
    // A flight starts when the target changes; where it starts from is asked then.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, target]);
  if (key === null) return null;
  // Before it has begun, what is seen is still what was.
  return last.current === key ? pose : (from() ?? pose);
}
