import type { Pose } from '@eskovan/core/document';
import { useEffect, useRef, type HTMLAttributes } from 'react';
import { alongPicture, lookAround } from './eye.ts';
import { gone } from './going.ts';
import type { Hands, Latest } from './hands.ts';

/** How fast a held key turns, radians a second. */
const TURN = 1.1;
/** Nobody walks through a wall because pictures come slowly: a long while is walked in steps so short, seconds. */
const STEP = 0.05;
/** What takes longer is a page that was away, seconds. */
const LONGEST = 0.6;

const KEYS: Record<string, readonly [forward: number, right: number, turn: number]> = {
  KeyW: [1, 0, 0],
  ArrowUp: [1, 0, 0],
  KeyS: [-1, 0, 0],
  ArrowDown: [-1, 0, 0],
  KeyA: [0, -1, 0],
  KeyD: [0, 1, 0],
  ArrowLeft: [0, 0, 1],
  ArrowRight: [0, 0, -1],
};

/** Walks and turns as long as keys are down (Shift runs), as far as the time goes: a short press on a slow machine, too. */
export function useWalking(latest: Latest): HTMLAttributes<HTMLDivElement> {
  const down = useRef(new Set<string>());
  const loop = useRef(0);
  const fast = useRef(false);
  /** Until when has been walked, milliseconds. */
  const until = useRef(0);

  const stop = () => {
    down.current.clear();
    cancelAnimationFrame(loop.current);
    loop.current = 0;
  };
  useEffect(() => stop, []);

  const go = () => {
    const now = performance.now();
    const { hands } = latest.current;
    let pose = hands?.eye();
    let left = Math.min(LONGEST, (now - until.current) / 1000);
    until.current = now;
    if (!hands || !pose || left <= 0) return;
    for (; left > 0; left -= STEP) pose = walked(hands, pose, down.current, Math.min(left, STEP), fast.current);
    hands.onMove(pose);
  };
  const step = () => {
    loop.current = 0;
    if (down.current.size === 0) return;
    go();
    loop.current = requestAnimationFrame(step);
  };

  return {
    onKeyDown: (event) => {
      fast.current = event.shiftKey;
      if (
        !(event.code in KEYS) ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        event.target !== event.currentTarget
      )
        return;
      event.preventDefault();
      event.stopPropagation();
      if (event.repeat) return;
      if (down.current.size === 0) until.current = performance.now();
      else go();
      down.current.add(event.code);
      if (loop.current === 0) loop.current = requestAnimationFrame(step);
    },
    onKeyUp: (event) => {
      if (down.current.has(event.code)) go();
      fast.current = event.shiftKey;
      down.current.delete(event.code);
    },
    onBlur: stop,
  };
}

/** Where the eye is a little later. */
function walked(hands: Hands, from: Pose, down: ReadonlySet<string>, seconds: number, fast: boolean): Pose {
  let [forward, right, turn] = [0, 0, 0];
  for (const code of down) {
    const [f, r, t] = KEYS[code]!;
    forward += f;
    right += r;
    turn += t;
  }
  const tempo = hands.tempo ?? 1;
  const pose = turn === 0 ? from : lookAround(from, turn * TURN * seconds * tempo, 0);
  const { parallel } = hands.lens;
  if (parallel !== undefined) return alongPicture(pose, right * parallel * seconds, forward * parallel * seconds);
  return gone(hands, pose, [forward, right], seconds, fast);
}
