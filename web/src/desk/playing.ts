import { frameCount, frameTime } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { useEffect } from 'react';
import { workbench, useWorkbench } from './workbench.ts';

/** Goes to a frame of the move, kept inside it. */
export function goToFrame(frame: number, duration: number, rate: Rate): void {
  const last = frameCount(duration, rate) - 1;
  workbench.set({ time: frameTime(Math.min(last, Math.max(0, frame)), rate), playing: false, scout: null });
}

export function togglePlaying(duration: number): void {
  const { playing, time } = workbench.get();
  workbench.set({ playing: !playing, scout: null, ...(!playing && time >= duration - 0.05 ? { time: 0 } : {}) });
}

/** Runs the clock while playing, round and round where the end is the beginning. Real time: a slow machine shows fewer pictures, not a slower walk. */
export function usePlayback(duration: number, loops: boolean): void {
  const playing = useWorkbench((state) => state.playing);
  useEffect(() => {
    if (!playing || duration <= 0) return;
    let before = performance.now();
    let loop = requestAnimationFrame(function tick(now) {
      // Thirty times a second is as often as a film changes; the rest of the machine belongs to the picture.
      if (now - before < 30) {
        loop = requestAnimationFrame(tick);
        return;
      }
      // The first frame's time stamp may lie before the moment the button was pressed.
      const time = workbench.get().time + Math.max(0, now - before) / 1000;
      before = Math.max(before, now);
      if (time >= duration && !loops) workbench.set({ time: duration, playing: false });
      else {
        workbench.set({ time: time % duration });
        loop = requestAnimationFrame(tick);
      }
    });
    return () => cancelAnimationFrame(loop);
  }, [playing, duration, loops]);
}
