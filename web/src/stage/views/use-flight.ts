import type { Pose } from '@eskovan/core/document';
import { minimumJerk } from '@eskovan/core/pace';
import { useEffect, useRef, useState } from 'react';
import { blendPoses } from '../../picture/eye.ts';

const SECONDS = 0.7;

/**
 * The eye on its way: when the target becomes another one, it flies there from where it was. With reduced motion it
 * is there at once.
 */
export function useFlight(key: string | null, target: Pose | null, from: () => Pose | null): Pose | null {
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
    if (last.current === key || !start || still) {
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
