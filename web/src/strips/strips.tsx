import type { CompiledMove } from '@eskovan/core/move';
import { frameAt, frameTime } from '@eskovan/core/reel';
import type { Key, Rate, TrackName } from '@eskovan/core/document';
import { insertKey } from '@eskovan/core/track';
import { Button, useSize } from '../kit/index.ts';
import { Table2 } from 'lucide-react';
import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { Playhead } from './playhead.tsx';
import { RoundBand } from './round-band.tsx';
import { StripChart, StripRuler, type StripMark } from './strip-chart.tsx';
import { StripItems, type OnItem } from './strip-items.tsx';
import { StripKeys } from './strip-keys.tsx';
import { AxisControls, useStripAxis } from './axis.tsx';
import { TightPlaces } from './cut-drawing.tsx';
import { EyeLineHand } from './eye-line-hand.tsx';
import { HeldMarks, type HeldMark } from './held-marks.tsx';
import { LABELS, RULER, stripScale, type StripScale } from './scales.ts';
import { StripTable } from './strip-table.tsx';

interface StripsProps {
  move: CompiledMove;
  /** It is the newest, with all that was found about it: nothing in the strips is about to change its place. */
  current?: boolean;
  rate: Rate;
  /** Stretches in which something is wrong. */
  marks?: readonly StripMark[];
  onTime: (time: number) => void;
  /** Changes the keys of a track; without it strips only show. */
  onKeys?: (label: string, track: TrackName, change: (keys: Key[]) => Key[]) => void;
  /** Changes what lies in a strip; without it strips only show. */
  onItem?: OnItem;
  /** What was looked at beside the move and is not kept. */
  held?: readonly HeldMark[];
  onLook?: (id: string) => void;
  /** A strip that can be shown besides those of the move. */
  extra?: { label: string; shown: boolean; onShown: () => void };
}

const NO_MARKS: readonly StripMark[] = [];

/** What a move does over time, a strip for each of its channels, on one time axis. */
export function Strips({
  move,
  current = true,
  rate,
  marks = NO_MARKS,
  onTime,
  onKeys,
  onItem,
  held = [],
  onLook,
  extra,
}: StripsProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [table, setTable] = useState<string | null>(null);
  const { channels, duration } = move;
  const axis = useStripAxis(move, size.width, box);
  const { scale } = axis;
  const strip = stripScale(size.height, channels);
  const onFrame = (time: number) => frameTime(frameAt(time + 0.5 * frameTime(1, rate), rate), rate);
  const timeOf = (event: PointerEvent<HTMLDivElement> | React.MouseEvent<HTMLDivElement>) =>
    Math.min(duration, onFrame(scale.timeAt(event.clientX - event.currentTarget.getBoundingClientRect().left)));
  return (
    <div
      ref={box}
      className="relative h-full w-full touch-none overflow-hidden bg-desk select-none"
      data-testid="strip-charts"
      data-current={current}
      onPointerDown={(event) => {
        if (event.clientX - event.currentTarget.getBoundingClientRect().left < LABELS - 8) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        onTime(timeOf(event));
      }}
      onPointerMove={(event) =>
        event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId) && onTime(timeOf(event))
      }
      onDoubleClick={(event) => {
        const top = event.clientY - event.currentTarget.getBoundingClientRect().top;
        const channel = channels[strip.indexAt(top)];
        if (!channel?.track || !onKeys) return;
        const time = timeOf(event);
        const key: Key = {
          id: crypto.randomUUID(),
          anchor: { by: 'time', time },
          value: channel.at(time) - (channel.track.base?.(time) ?? 0),
          ease: 'smooth',
        };
        onKeys(`${channel.title} key`, channel.track.name, (keys) => insertKey(keys, key));
      }}
    >
      {size.width > 0 && (
        <>
          <svg width={size.width} height={size.height} className="block">
            <Charts move={move} marks={marks} scale={scale} height={size.height} />
          </svg>
          <AxisControls {...axis} {...(extra && { extra })} />
          {onKeys &&
            channels.map((channel, i) =>
              channel.track?.name === 'lift' ? (
                <EyeLineHand
                  key={channel.id}
                  {...{ move, channel, scale, onKeys }}
                  top={strip.top(i)}
                  height={strip.height(i)}
                />
              ) : null,
            )}
          <RoundBand scale={scale} />
          {onLook && <HeldMarks marks={held} scale={scale} onLook={onLook} />}
          <Playhead duration={duration} rate={rate} scale={scale} onTime={onTime} />
          {channels.map((channel, i) =>
            channel.cut ? (
              <TightPlaces
                key={channel.id}
                places={channel.cut.tightest.filter(({ time }) => scale.shows(time))}
                x={scale.x}
                right={LABELS + scale.inner}
                top={strip.top(i)}
                onTime={onTime}
              />
            ) : null,
          )}
          {channels.map(({ id, title }, i) => (
            <Button
              key={id}
              small
              tone="quiet"
              icon={<Table2 size={13} />}
              aria-label={`${title} as a table`}
              className="absolute! left-1.5"
              style={{ top: strip.top(i) + 18 }}
              onClick={() => setTable(id)}
            />
          ))}
          {onItem &&
            channels.map((channel, i) =>
              channel.items ? (
                <StripItems
                  key={channel.id}
                  {...{ channel, rate, scale, onTime, onItem }}
                  top={strip.top(i)}
                  height={strip.height(i)}
                />
              ) : null,
            )}
          {onKeys &&
            channels.map((channel, i) =>
              channel.track ? (
                <StripKeys
                  key={channel.id}
                  channel={channel}
                  track={channel.track}
                  duration={duration}
                  rate={rate}
                  scale={scale}
                  top={strip.top(i)}
                  height={strip.height(i)}
                  onTime={onTime}
                  onKeys={(label, change) => onKeys(label, channel.track!.name, change)}
                />
              ) : null,
            )}
        </>
      )}
      <StripTable move={move} rate={rate} strip={table} onClose={() => setTable(null)} onTime={onTime} />
    </div>
  );
}

interface ChartsProps {
  move: CompiledMove;
  marks: readonly StripMark[];
  scale: StripScale;
  height: number;
}

/** Everything that stays while the playhead moves. */
function Charts({ move, marks, scale, height }: ChartsProps) {
  return useMemo(() => {
    const strip = stripScale(height, move.channels);
    return (
      <g>
        <StripRuler scale={scale} top={RULER} />
        {move.channels.map((channel, i) => (
          <StripChart
            key={channel.id}
            channel={channel}
            marks={marks.filter((mark) => mark.channel === channel.id)}
            scale={scale}
            top={strip.top(i)}
            height={strip.height(i)}
          />
        ))}
      </g>
    );
  }, [move, marks, scale, height]);
}
