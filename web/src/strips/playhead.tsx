import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import type { KeyboardEvent } from 'react';
import { useWorkbench } from '../desk/workbench.ts';
import type { StripScale } from './scales.ts';

interface PlayheadProps {
  duration: number;
  rate: Rate;
  scale: StripScale;
  onTime: (time: number) => void;
}

/** A layer of its own: moving it redraws nothing under it. */
export function Playhead({ duration, rate, scale, onTime }: PlayheadProps) {
  const time = useWorkbench((state) => state.time);
  const frame = frameAt(time, rate);
  const at = Math.min(time, duration);
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -25, PageDown: 25 };
    const target =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? duration
          : steps[event.key] === undefined
            ? null
            : frameTime(frame + steps[event.key]!, rate);
    if (target === null) return;
    event.preventDefault();
    event.stopPropagation();
    onTime(Math.min(duration, Math.max(0, target)));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Time"
      aria-valuemin={0}
      aria-valuemax={Number(duration.toFixed(2))}
      aria-valuenow={Number(time.toFixed(2))}
      aria-valuetext={timecodeOf(frame, rate)}
      onKeyDown={onKeyDown}
      className="absolute top-0 bottom-0 left-0 w-2.5 will-change-transform"
      style={{
        transform: `translateX(${(scale.x(at) - 5).toFixed(2)}px)`,
        visibility: scale.shows(at) ? 'visible' : 'hidden',
      }}
    >
      <svg width="10" height="16" className="absolute top-0.5 left-0" aria-hidden>
        <path d="M0 0h10v8l-5 5l-5 -5z" fill="var(--ink)" />
      </svg>
      <span className="absolute top-2.5 bottom-0 left-[4.4px] w-[1.25px] bg-ink" />
    </div>
  );
}
