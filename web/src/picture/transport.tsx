import { frameAt, frameCount, frameTime, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { Pause, Play, SkipBack, StepBack, StepForward } from 'lucide-react';
import { useEffect } from 'react';
import { workbench, useWorkbench } from '../app/workbench.ts';
import { Button } from '../kit/index.ts';

/** Goes to a frame of the move, kept inside it. */
export function goToFrame(frame: number, duration: number, rate: Rate): void {
  const last = frameCount(duration, rate) - 1;
  workbench.set({ time: frameTime(Math.min(last, Math.max(0, frame)), rate), playing: false, scout: null });
}

export function togglePlaying(duration: number): void {
  const { playing, time } = workbench.get();
  workbench.set({ playing: !playing, scout: null, ...(!playing && time >= duration - 0.05 ? { time: 0 } : {}) });
}

/** Runs the clock while playing. Real time: a slow machine shows fewer pictures, not a slower walk. */
export function usePlayback(duration: number): void {
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
      if (time >= duration) workbench.set({ time: duration, playing: false });
      else {
        workbench.set({ time });
        loop = requestAnimationFrame(tick);
      }
    });
    return () => cancelAnimationFrame(loop);
  }, [playing, duration]);
}

/** Play, step, and where we are: frame, seconds, timecode. */
export function Transport({ duration, rate }: { duration: number; rate: Rate }) {
  const time = useWorkbench((state) => state.time);
  const playing = useWorkbench((state) => state.playing);
  const frame = Math.min(frameAt(time, rate), frameCount(duration, rate) - 1);
  const disabled = duration <= 0;
  return (
    <div className="on-surround flex items-center gap-1.5 bg-surround px-2.5 pt-1 pb-2.5 text-surround-ink">
      <Button
        tone="surround"
        small
        disabled={disabled}
        icon={<SkipBack size={14} />}
        aria-label="To the start"
        onClick={() => goToFrame(0, duration, rate)}
      />
      <Button
        tone="surround"
        small
        disabled={disabled}
        icon={<StepBack size={14} />}
        aria-label="Back one frame"
        onClick={() => goToFrame(frame - 1, duration, rate)}
      />
      <Button
        tone="surround"
        small
        disabled={disabled}
        className="w-20"
        icon={playing ? <Pause size={14} /> : <Play size={14} />}
        onClick={() => togglePlaying(duration)}
      >
        {playing ? 'Pause' : 'Play'}
      </Button>
      <Button
        tone="surround"
        small
        disabled={disabled}
        icon={<StepForward size={14} />}
        aria-label="Forward one frame"
        onClick={() => goToFrame(frame + 1, duration, rate)}
      />
      {/* A layer of its own: it changes with every frame. */}
      <p
        className="ml-auto flex gap-3 font-mono text-sm whitespace-nowrap text-surround-soft will-change-transform"
        data-testid="where"
        data-frame={frame}
      >
        <span>
          frame <span className="text-surround-ink">{frame}</span>
        </span>
        <span>
          <span className="text-surround-ink">{time.toFixed(2)}</span> s
        </span>
        <span className="text-surround-ink">{timecodeOf(frame, rate)}</span>
      </p>
    </div>
  );
}
