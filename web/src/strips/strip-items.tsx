import { shownIn, type Rate } from '@eskovan/core/document';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import type { Channel, ChannelItem } from '@eskovan/core/track';
import type { KeyboardEvent, PointerEvent } from 'react';
import { useHeldKey } from '../desk/use-held-key.ts';
import { cx } from '../kit/index.ts';
import { LABELS, rangeOf, valueStep, valuesOf, type StripScale } from './scales.ts';
import { useDrag } from './use-drag.ts';

/** What a hand does with an item: moved by seconds from where it was, ended elsewhere, given another value, or taken away. */
export type ItemChange =
  | { by: 'shift'; seconds: number }
  /** By keys: from where it is by now, which may be more than is drawn yet. */
  | { by: 'nudge'; seconds: number; value: number }
  | { by: 'from' | 'to'; seconds: number }
  | { by: 'value'; value: number }
  | { by: 'remove' };

/** @param item as it was when the hand took hold of it */
export type OnItem = (item: ChannelItem, change: ItemChange) => void;

interface StripItemsProps {
  channel: Channel;
  rate: Rate;
  scale: StripScale;
  top: number;
  height: number;
  onTime: (time: number) => void;
  onItem: OnItem;
}

/** What lies in a strip: pauses, marks, pins and gazes, moved and ended elsewhere by dragging, or by keys. */
export function StripItems(props: StripItemsProps) {
  const { channel, scale, top, height } = props;
  const { values, under } = valuesOf(channel, scale);
  const [low, high] = rangeOf(channel, values, under, scale.lengths);
  const right = LABELS + scale.inner;
  const shown = ({ from, to }: ChannelItem) => scale.x(to) >= LABELS && scale.x(from) <= right;
  return (channel.items ?? [])
    .filter(shown)
    .map((item) => (
      <Item
        key={item.id}
        {...props}
        item={item}
        y={item.value === null ? null : top + height - ((item.value - low) / (high - low)) * height}
        perPixel={(high - low) / height}
      />
    ));
}

interface ItemProps extends StripItemsProps {
  item: ChannelItem;
  y: number | null;
  /** Value of a pixel. */
  perPixel: number;
}

type Hold = 'all' | 'from' | 'to';
interface Held {
  item: ChannelItem;
  hold: Hold;
  scale: StripScale;
  perPixel: number;
  /** Of the time when it was taken hold of, with the move as it was. */
  onItem: OnItem;
}

/** Room at an item's ends by which they are taken hold of, pixels. */
const EDGE = 7;
const [LEAST, LEAST_POSE] = [14, 18];
function Item({ item, y, perPixel, channel, rate, scale, top, height, onTime, onItem }: ItemProps) {
  const keys = useHeldKey();
  const left = Math.max(LABELS, scale.x(item.from));
  const least = item.kind === 'pose' ? LEAST_POSE : LEAST;
  const width = Math.max(least, Math.min(LABELS + scale.inner, scale.x(item.to)) - left);
  const text = item.to > item.from ? `${item.about}, ${(item.to - item.from).toFixed(1)} s` : item.about;
  const thick = item.kind === 'action' ? Math.max(9, Math.min(16, height / (channel.rows ?? 1) - 1)) : 16;
  const shown = shownIn(channel.unit, scale.lengths);
  const said =
    item.value === null || item.kind === 'action'
      ? text
      : `${text}, ${(item.value * shown.times).toFixed(2)} ${shown.unit}`;
  const label = `${text} at ${timecodeOf(frameAt(item.from, rate), rate)}`;
  const { begin, hands } = useDrag<Held>((held, dx, dy) => {
    // An end goes by where it is; all of it by where it begins.
    const taken = held.hold === 'to' ? held.item.to : held.item.from;
    const seconds = held.scale.shifted(taken, dx) - taken;
    if (held.hold !== 'all') held.onItem(held.item, { by: held.hold, seconds });
    else if (held.item.value !== null && held.item.kind !== 'action' && Math.abs(dy) > Math.abs(dx))
      held.onItem(held.item, {
        by: 'value',
        value: Math.round((held.item.value - dy * held.perPixel) / valueStep(held.perPixel)) * valueStep(held.perPixel),
      });
    else held.onItem(held.item, { by: 'shift', seconds });
  });
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const frames = frameTime(event.shiftKey ? 10 : 1, rate);
    const step = (event.shiftKey ? 10 : 1) * valueStep(perPixel);
    const change: Record<string, ItemChange> = {
      ArrowLeft: { by: 'nudge', seconds: -frames, value: 0 },
      ArrowRight: { by: 'nudge', seconds: frames, value: 0 },
      ...(item.value !== null && {
        ArrowUp: { by: 'nudge', seconds: 0, value: step },
        ArrowDown: { by: 'nudge', seconds: 0, value: -step },
      }),
      Delete: { by: 'remove' },
      Backspace: { by: 'remove' },
    };
    const wanted = change[event.key];
    if (wanted) {
      if (wanted.by !== 'remove') keys.onKeyDown(event);
      onItem(item, wanted);
    } else if (event.key === 'Enter') onTime(item.from);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const holdAt = (event: PointerEvent<HTMLDivElement>): Hold => {
    // What has no length is moved; a stay is lengthened at its end.
    if (item.kind === 'pin' || width < 3 * EDGE) return 'all';
    const at = event.clientX - event.currentTarget.getBoundingClientRect().left;
    return at < EDGE && item.kind !== 'pause' && item.kind !== 'pose' && item.kind !== 'action'
      ? 'from'
      : at > width - EDGE
        ? 'to'
        : 'all';
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Number((item.value ?? item.from).toFixed(2))}
      aria-valuetext={said}
      title={said}
      data-item={item.kind}
      className={cx(
        'absolute flex touch-none items-center overflow-hidden rounded-[5px] text-xs whitespace-nowrap text-ink',
        item.kind === 'pose' ? 'px-0' : 'px-1.5',
        thick < 14 && 'text-[10px] leading-none',
        LOOK[item.kind],
      )}
      style={{
        left: item.kind === 'pin' || (item.kind === 'pose' && item.from === item.to) ? left - least / 2 : left,
        width,
        ...(y === null ? { top: top + height - 19, height: 17 } : { top: y - thick / 2, height: thick }),
      }}
      onPointerDown={(event) => begin(event, { item, hold: holdAt(event), scale, perPixel, onItem })}
      {...hands}
      onKeyDown={onKeyDown}
      onKeyUp={keys.onKeyUp}
      onBlur={keys.onBlur}
    >
      {(item.kind === 'pose' || (item.kind !== 'pin' && width > 40)) && (
        <span className="truncate">{item.kind === 'pose' ? item.about.replace(/\D/g, '') : item.about}</span>
      )}
    </div>
  );
}

const LOOK: Record<ChannelItem['kind'], string> = {
  pause:
    'cursor-grab border border-ink-soft/50 bg-[repeating-linear-gradient(45deg,var(--rule)_0_4px,var(--paper)_4px_8px)]',
  mark: 'cursor-grab border border-lagoon bg-lagoon-wash',
  pin: 'cursor-ew-resize rounded-b-full border border-madder bg-madder/75',
  gaze: 'cursor-grab border border-ochre bg-ochre/25',
  action: 'cursor-grab border border-plum bg-plum/20',
  pose: 'cursor-move justify-center border border-indigo bg-paper font-semibold text-indigo',
};
