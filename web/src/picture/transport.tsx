import { frameAt, frameCount, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { Images, Pause, PersonStanding, Play, SkipBack, StepBack, StepForward } from 'lucide-react';
import { memo } from 'react';
import { goToFrame, togglePlaying } from '../desk/playing.ts';
import { useWorkbench, workbench } from '../desk/workbench.ts';
import { Button } from '../kit/index.ts';

interface TransportProps {
  /** seconds */
  duration: number;
  rate: Rate;
  /** Every frame can be waited for. */
  steps?: boolean;
  /** Somebody can walk along. */
  walked?: boolean;
}

/** The frame that is shown, of as many as there are. */
const frameOf = (time: number, { duration, rate }: TransportProps): number =>
  Math.min(frameAt(time, rate), frameCount(duration, rate) - 1);

/** Play, step, and where we are: frame, seconds, timecode. */
export const Transport = memo(function Transport(props: TransportProps) {
  const { duration, rate, steps = false, walked = false } = props;
  const everyFrame = useWorkbench((state) => state.everyFrame);
  const company = useWorkbench((state) => state.company);
  const playing = useWorkbench((state) => state.playing);
  const playRate = useWorkbench((state) => state.playRate);
  const disabled = duration <= 0;
  const step = (by: number) => goToFrame(frameOf(workbench.get().time, props) + by, duration, rate);
  return (
    <div className="on-surround @container flex items-center gap-1 bg-surround px-2.5 pt-1 pb-2.5 text-surround-ink">
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
        onClick={() => step(-1)}
      />
      <Button
        tone="surround"
        small
        disabled={disabled}
        className="w-20 @max-[470px]:w-18"
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
        onClick={() => step(1)}
      />
      {steps && (
        <Button
          tone="surround"
          small
          pressed={everyFrame}
          icon={<Images size={14} />}
          aria-label="Every frame"
          title="Every frame is played: slower than life where pictures take longer, but none is left out"
          onClick={() => workbench.set({ everyFrame: !everyFrame })}
        />
      )}
      {walked && (
        <Button
          tone="surround"
          small
          pressed={company}
          icon={<PersonStanding size={14} />}
          aria-label="Somebody walks along"
          title="Somebody of 1.75 m walks along a few steps ahead, for scale; renders have nobody"
          onClick={() => workbench.set({ company: !company })}
        />
      )}
      <Where {...props} />
    </div>
  );
});

/** A layer of its own: it changes with every frame. */
function Where(props: TransportProps) {
  const time = useWorkbench((state) => state.time);
  const frame = frameOf(time, props);
  return (
    <p
      className="ml-auto flex gap-3 font-mono @max-[470px]:gap-2 text-sm whitespace-nowrap text-surround-soft will-change-transform"
      data-testid="where"
      data-frame={frame}
    >
      <span>
        <span className="@max-[470px]:hidden">frame </span>
        <span className="text-surround-ink">{frame}</span>
      </span>
      <span>
        <span className="text-surround-ink">{time.toFixed(2)}</span> s
      </span>
      <span className="text-surround-ink">{timecodeOf(frame, props.rate)}</span>
    </p>
  );
}
