import { frameCount, frameTime, readFrames, timecodeOf } from '@eskovan/core/reel';
import type { ComponentProps } from 'react';
import { useProject } from '../../data/use-project.ts';
import { NumberField } from '../../kit/index.ts';

type TimeFieldProps = Omit<ComponentProps<typeof NumberField>, 'unit' | 'measure' | 'frames' | 'reads' | 'title'>;

/** Seconds, typed as such, as frames (`72f`) or as a timecode (`00:00:03:12`, `1:30`) of the project's rate; pointed at, it says its timecode. */
export function TimeField(props: TimeFieldProps) {
  const { rate } = useProject().project.body;
  const reads = (text: string): number | null => {
    const frames = text.includes(':') ? readFrames(text, rate) : null;
    return frames === null ? null : frameTime(frames, rate);
  };
  return (
    <NumberField
      {...props}
      {...{ reads }}
      unit="s"
      measure="time"
      frames={rate.num / rate.den}
      title={timecodeOf(frameCount(Math.max(0, props.value), rate), rate)}
    />
  );
}
