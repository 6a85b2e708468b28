import { PACE_LIMITS, type Row, type Walk, type WayAnchor } from '@eskovan/core/document';
import { anchorAtTime, type CompiledMove, type MovePath } from '@eskovan/core/move';
import { changePaceItem, removePaceItem, type PaceItemChange } from '@eskovan/core/pace';
import type { ChannelItem } from '@eskovan/core/track';
import type { ItemChange } from '../../strips/strip-items.tsx';
import { editMove } from './edit-move.ts';

/** No gaze lasts less, seconds. */
const SHORTEST_SPAN = 0.1;
/** What a new item is, until somebody says otherwise. */
const NEW_PAUSE = 3;
const NEW_MARK = { length: 3, part: 0.6 };
const NEW_SPAN = 4;

export const changePace = (row: Row<'move'>, label: string, change: (pace: Walk['pace']) => Walk['pace']) =>
  editMove(row, 'walk', label, (now) => ({ ...now, pace: change(now.pace) }));

/** Puts a pause, a slow place or a pin where the walk is at a time. */
export function addToPace(row: Row<'move'>, move: CompiledMove, kind: 'pause' | 'mark' | 'pin', time: number): void {
  const { path } = move;
  if (!path) return;
  const id = crypto.randomUUID();
  const anchor: WayAnchor = path.anchorAt(path.stationAt(time));
  if (kind === 'pause')
    changePace(row, 'Pause', (pace) => ({
      ...pace,
      pauses: [...(pace.pauses ?? []), { id, anchor, seconds: NEW_PAUSE }],
    }));
  else if (kind === 'mark')
    changePace(row, 'Go slower here', (pace) => {
      const speed = Math.max(PACE_LIMITS.speed[0], tidy(path.topSpeed * NEW_MARK.part, 2));
      return { ...pace, marks: [...(pace.marks ?? []), { id, anchor, length: NEW_MARK.length, speed }] };
    });
  else
    changePace(row, 'Timing pin', (pace) => ({
      ...pace,
      pins: [...(pace.pins ?? []), { id, anchor, time: Math.max(PACE_LIMITS.pin[0], time) }],
    }));
}

/** Lets a walk look at something else for some seconds from a time on. */
export function addGazeSpan(row: Row<'move'>, move: CompiledMove, time: number, gaze: Walk['gaze']): void {
  const { path, duration } = move;
  if (!path) return;
  const to = Math.min(duration, time + NEW_SPAN);
  const from = Math.min(time, Math.max(0, to - NEW_SPAN));
  const span = {
    id: crypto.randomUUID(),
    from: anchorAtTime(path, from),
    to: anchorAtTime(path, to),
    gaze,
    handOver: 1.2,
  };
  editMove(row, 'walk', 'Look there for a while', (now) => ({ ...now, gazeSpans: [...(now.gazeSpans ?? []), span] }));
}

/**
 * Changes an item of a walk's strips.
 * @param item as it was when the hand took hold of it
 * @param move the walk as it was then: times in it do not run away under the hand
 */
export function editItem(row: Row<'move'>, move: CompiledMove, item: ChannelItem, change: ItemChange): void {
  if (item.kind === 'gaze') editSpan(row, move, item, change);
  else editPaceItem(row, move, item, change);
}

function editSpan(row: Row<'move'>, { path, duration }: CompiledMove, item: ChannelItem, change: ItemChange): void {
  if (!path) return;
  const within = (time: number) => Math.min(duration, Math.max(0, time));
  editMove(row, 'walk', change.by === 'remove' ? 'Take a gaze away' : 'Move a gaze', (now) => ({
    ...now,
    gazeSpans: (now.gazeSpans ?? []).flatMap((span) => {
      if (span.id !== item.id) return [span];
      if (change.by === 'remove') return [];
      if (change.by === 'value') return [span];
      const from = change.by === 'to' ? item.from : within(item.from + change.seconds);
      const to = change.by === 'from' ? item.to : within(item.to + change.seconds);
      if (to - from < SHORTEST_SPAN) return [span];
      return [{ ...span, from: anchorAtTime(path, from), to: anchorAtTime(path, to) }];
    }),
  }));
}

function editPaceItem(row: Row<'move'>, { path }: CompiledMove, item: ChannelItem, change: ItemChange): void {
  if (!path) return;
  const { by } = change;
  if (by === 'remove') changePace(row, 'Take it out of the pace', (pace) => removePaceItem(pace, item.id));
  else changePace(row, 'Pace', (pace) => changePaceItem(pace, item.id, wanted(path, item, change)));
}

/** What a hand wants of an item of the pace. */
function wanted(path: MovePath, item: ChannelItem, change: Exclude<ItemChange, { by: 'remove' }>): PaceItemChange {
  if (change.by === 'value') return { speed: tidy(change.value, 2) };
  const { by, seconds } = change;
  const shift = by === 'shift';
  if (item.kind === 'pin') return shift ? { time: tidy(item.from + seconds, 3) } : {};
  if (item.kind === 'pause') {
    // It lasts: to the right it is pushed by its end, to the left by its beginning.
    if (shift) return { anchor: path.anchorAt(path.stationAt((seconds < 0 ? item.from : item.to) + seconds)) };
    return by === 'to' ? { seconds: tidy(item.to - item.from + seconds, 2) } : {};
  }
  const start = path.stationAt(item.from + (by === 'to' ? 0 : seconds));
  const end = path.stationAt(item.to + (by === 'from' ? 0 : seconds));
  // Moved as a whole it stays as long as it is.
  return { anchor: path.anchorAt((start + end) / 2), ...(!shift && { length: end - start }) };
}

const tidy = (value: number, digits: number) => Number(value.toFixed(digits));
