import type { Rate } from '@eskovan/core/document';
import { frameTime, readFrames, timecodeOf } from '@eskovan/core/reel';
import { useId, useState, type KeyboardEvent } from 'react';
import { cx } from '../../kit/index.ts';

interface FramesFieldProps {
  label: string;
  frames: number;
  rate: Rate;
  onFrames: (frames: number) => void;
  min?: number;
}

/** A length to the frame: typed as timecode, frames or seconds; arrow keys step it by a frame. */
export function FramesField({ label, frames, rate, onFrames, min = 1 }: FramesFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const fault = useId();
  const put = (value: number) => {
    setTyped(null);
    setWrong(false);
    if (Math.max(min, value) !== frames) onFrames(Math.max(min, value));
  };
  const commit = () => {
    if (typed === null) return;
    const read = readFrames(typed, rate);
    if (read === null) setWrong(true);
    else put(read);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === 'Enter') commit();
    else if (event.key === 'Escape' && typed !== null) {
      setTyped(null);
      setWrong(false);
    } else if (by !== undefined) put(frames + by * (event.shiftKey ? Math.round(rate.num / rate.den) : 1));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <label className="flex min-h-7.5 items-center justify-between gap-2">
      <span className="text-ink-soft">{label}</span>
      <span className="flex min-w-0 items-center gap-1.5">
        <span className="truncate font-mono text-xs text-ink-faint">
          {frameTime(frames, rate).toFixed(2)} s · {frames} f
        </span>
        <input
          aria-label={label}
          aria-invalid={wrong}
          aria-describedby={wrong ? fault : undefined}
          value={typed ?? timecodeOf(frames, rate)}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={commit}
          onKeyDown={onKeyDown}
          className={cx(
            'h-7 w-27 rounded-md border bg-raised px-1.5 text-right font-mono tabular-nums',
            wrong ? 'border-madder text-madder' : 'border-rule hover:border-ink-faint',
          )}
        />
        {wrong && (
          <span id={fault} role="alert" className="sr-only">
            Type a timecode, frames (72f) or seconds (3s).
          </span>
        )}
      </span>
    </label>
  );
}
