import type { Key, TrackName } from '@eskovan/core/document';
import { liftAbout, liftAt, liftLine, type CompiledMove } from '@eskovan/core/move';
import type { Channel, RaiseIds } from '@eskovan/core/track';
import { rangeOf, valuesOf, type StripScale } from './scales.ts';
import { useDrag } from './use-drag.ts';

interface EyeLineHandProps {
  move: CompiledMove;
  channel: Channel;
  scale: StripScale;
  top: number;
  height: number;
  onKeys: (label: string, track: TrackName, change: (keys: Key[]) => Key[]) => void;
}

interface Held {
  move: CompiledMove;
  time: number;
  ids: RaiseIds;
  metresPerPixel: number;
}

/** The line of the eye, pulled up or down where it is taken hold of. */
export function EyeLineHand({ move, channel, scale, top, height, onKeys }: EyeLineHandProps) {
  const { times, values, under } = valuesOf(channel, scale);
  const [low, high] = rangeOf(channel, values, under, scale.lengths);
  const y = (value: number) => top + height - ((value - low) / (high - low)) * height;
  const { begin, hands } = useDrag<Held>((held, _dx, dy) => {
    const line = liftLine(held.move);
    if (!line) return;
    const value = liftAt(line, held.time) - dy * held.metresPerPixel;
    onKeys('Lift the eye', 'lift', (keys) => [...liftAbout(held.move, keys, held.ids, held.time, value)]);
  });
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <path
        d={values.map((value, i) => `${i ? 'L' : 'M'}${scale.x(times[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('')}
        fill="none"
        stroke="transparent"
        strokeWidth="11"
        className="pointer-events-auto cursor-ns-resize"
        data-testid="eye-line"
        onPointerDown={(event) =>
          begin(event, {
            move,
            time: scale.timeAt(event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left),
            ids: [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()],
            metresPerPixel: (high - low) / height,
          })
        }
        {...hands}
        onDoubleClick={undefined}
      >
        <title>Pull up or down to lift the eye here</title>
      </path>
    </svg>
  );
}
