import { frameAt, frameCount, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { Pause, Play, SkipBack, StepBack, StepForward } from 'lucide-react';
import { goToFrame, togglePlaying } from '../desk/playing.ts';
import { useWorkbench } from '../desk/workbench.ts';
import { Button } from '../kit/index.ts';

/** Play, step, and where we are: frame, seconds, timecode. */
export function Transport({ duration, rate }: { duration: number; rate: Rate }) {
  const time = useWorkbench((state) => state.time);
  const playing = useWorkbench((state) => state.playing);
  const playRate = useWorkbench((state) => state.playRate);
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
        {playing && playRate !== 1 && <span className="font-mono text-xs">{playRate}×</span>}
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
