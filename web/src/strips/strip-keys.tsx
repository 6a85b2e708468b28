import { shownIn, type Key, type Rate } from '@eskovan/core/document';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import { moveKey, removeKey, type Channel, type ChannelKey } from '@eskovan/core/track';
import type { KeyboardEvent } from 'react';
import { useHeldKey } from '../desk/use-held-key.ts';
import { rangeOf, stepOf, valuesOf, type StripScale } from './scales.ts';
import { useDrag } from './use-drag.ts';

interface StripKeysProps {
  channel: Channel;
  track: NonNullable<Channel['track']>;
  duration: number;
  rate: Rate;
  scale: StripScale;
  top: number;
  height: number;
  onTime: (time: number) => void;
  onKeys: (label: string, change: (keys: Key[]) => Key[]) => void;
}

/** The hands of a strip: its keys, dragged in time and value, or moved by keys. */
export function StripKeys(props: StripKeysProps) {
  const { channel, track, scale, top, height } = props;
  const { values, under } = valuesOf(channel, scale);
  const [low, high] = rangeOf(channel, values, under, scale.lengths);
  return track.keys.map((key, i) =>
    scale.shows(key.time) ? (
      <KeyHandle
        key={key.id}
        {...props}
        at={key}
        number={i + 1}
        left={scale.x(key.time)}
        y={top + height - ((key.value + (track.base?.(key.time) ?? 0) - low) / (high - low)) * height}
        perPixel={(high - low) / height}
      />
    ) : null,
  );
}

interface KeyHandleProps extends StripKeysProps {
  at: ChannelKey;
  number: number;
  left: number;
  y: number;
  /** Value of a pixel. */
  perPixel: number;
}

function KeyHandle(props: KeyHandleProps) {
  const { at, number, left, y, perPixel, scale, channel, track, duration, rate, onTime, onKeys } = props;
  const hold = useHeldKey();
  const step = stepOf(channel, scale.lengths);
  const shown = shownIn(channel.unit, scale.lengths);
  const said = `${Number((at.value * shown.times).toFixed(2))} ${shown.unit}`;
  const placed = (time: number, value: number): [number, number] => {
    const onFrame = frameTime(frameAt(Math.min(duration, Math.max(0, time)) + 0.5 * frameTime(1, rate), rate), rate);
    const [least, most] = track.limits;
    const rounded = Math.round(value / step) * step;
    return [Math.min(duration, onFrame), Math.min(most, Math.max(least, rounded))];
  };
  const label = `Move a ${channel.title.toLowerCase()} key`;
  const put = (time: number, value: number) => onKeys(label, (keys) => moveKey(keys, at.id, ...placed(time, value)));
  /** From where the key is by now: a held arrow is faster than the strip is drawn. */
  const nudge = (seconds: number, by: number) =>
    onKeys(label, (keys) => {
      const key = keys.find(({ id }) => id === at.id);
      if (!key) return keys;
      const time = key.anchor.by === 'time' ? key.anchor.time : at.time;
      return moveKey(keys, at.id, ...placed(time + seconds, key.value + by));
    });
  // The axis of the values may follow what is dragged; the hand goes by the one it began on.
  const { begin, hands } = useDrag<Pick<KeyHandleProps, 'at' | 'perPixel' | 'scale'>>((from, dx, dy) =>
    put(from.scale.shifted(from.at.time, dx), from.at.value - dy * from.perPixel),
  );
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const frames = event.shiftKey ? 10 : 1;
    const steps: Record<string, [time: number, value: number]> = {
      ArrowLeft: [-frameTime(frames, rate), 0],
      ArrowRight: [frameTime(frames, rate), 0],
      ArrowUp: [0, step * frames],
      ArrowDown: [0, -step * frames],
    };
    const by = steps[event.key];
    if (by && !event.altKey && !event.ctrlKey) {
      hold.onKeyDown(event);
      nudge(...by);
    } else if (event.key === 'Delete' || event.key === 'Backspace')
      onKeys(`Delete a ${channel.title.toLowerCase()} key`, (keys) => removeKey(keys, at.id));
    else if (event.key === 'Enter') onTime(at.time);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${channel.title} key ${number}`}
      aria-valuemin={track.limits[0]}
      aria-valuemax={track.limits[1]}
      aria-valuenow={Number(at.value.toFixed(2))}
      aria-valuetext={`${said} at ${timecodeOf(frameAt(at.time, rate), rate)}`}
      title={`${said} at ${at.time.toFixed(2)} s`}
      className="absolute top-0 left-0 flex h-6 w-6 cursor-move touch-none items-center justify-center"
      style={{ transform: `translate(${(left - 12).toFixed(2)}px, ${(y - 12).toFixed(2)}px)` }}
      onPointerDown={(event) => begin(event, { at, perPixel, scale })}
      {...hands}
      onKeyDown={onKeyDown}
      onKeyUp={hold.onKeyUp}
      onBlur={hold.onBlur}
    >
      <span className="h-2.5 w-2.5 rotate-45 rounded-[2px] border-[1.75px] border-lagoon bg-paper" />
    </div>
  );
}
