import type { Key, TrackName } from '@eskovan/core/document';
import { LIFT_REACH, type CompiledMove } from '@eskovan/core/move';
import { raiseAbout, type Channel, type RaiseIds } from '@eskovan/core/track';
import { rangeOf, valuesOf, type StripScale } from './scales.ts';
import { useDrag } from './use-drag.ts';

interface EyeLineHandProps {
  move: CompiledMove;
  channel: Channel;
  track: NonNullable<Channel['track']>;
  scale: StripScale;
  top: number;
  height: number;
  onKeys: (label: string, track: TrackName, change: (keys: Key[]) => Key[]) => void;
}

interface Held {
  move: CompiledMove;
  track: NonNullable<Channel['track']>;
  time: number;
  ids: RaiseIds;
  metresPerPixel: number;
}

/** The line of a channel that rides on another, pulled up or down where it is taken hold of. */
export function EyeLineHand({ move, channel, track, scale, top, height, onKeys }: EyeLineHandProps) {
  const { times, values, under } = valuesOf(channel, scale);
  const [low, high] = rangeOf(channel, values, under);
  const y = (value: number) => top + height - ((value - low) / (high - low)) * height;
  const { begin, hands } = useDrag<Held>((held, _dx, dy) => {
    const was = (time: number) => liftAt(held, time);
    const [least, most] = held.track.limits;
    const wanted = was(held.time) - dy * held.metresPerPixel;
    const value = Math.min(most, Math.max(least, Math.round(wanted / held.track.step) * held.track.step));
    onKeys(`Pull the ${channel.title.toLowerCase()}`, held.track.name, (keys) =>
      raiseAbout(keys, held.ids, held.time, value, reachOf(held.move, held.time), was),
    );
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
            track,
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

/** How far the line is lifted at a time, by the move as it was. */
function liftAt({ move, track }: Held, time: number): number {
  const section = move.channels.find((one) => one.track?.name === track.name)!;
  return section.at(time) - (section.track!.base?.(time) ?? 0);
}

/** From when to when a pull at a time lifts. */
function reachOf({ path, duration }: CompiledMove, time: number): [number, number] {
  if (!path) return [Math.max(0, time - 1), Math.min(duration, time + 1)];
  const station = path.stationAt(time);
  return [path.timeAt(Math.max(0, station - LIFT_REACH)), path.timeAt(Math.min(path.length, station + LIFT_REACH))];
}
