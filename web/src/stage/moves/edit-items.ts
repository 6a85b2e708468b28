import type { Anchor, Row, Walk, WayAnchor } from '@eskovan/core/document';
import type { CompiledMove, MovePath } from '@eskovan/core/move';
import { anglesOf } from '@eskovan/core/geometry';
import type { ChannelItem } from '@eskovan/core/track';
import { workbench } from '../../desk/workbench.ts';
import type { ItemChange } from '../../strips/strip-items.tsx';
import { editMove } from './edit-move.ts';

/** Who moves less than this in a tenth of a second stands, metres. */
const STANDING = 1e-4;
const SHORTEST_PAUSE = 0.1;
/** What a new item is, until somebody says otherwise. */
const NEW_PAUSE = 3;
const NEW_MARK = { length: 3, part: 0.6 };
const NEW_SPAN = 4;

type Items = 'pauses' | 'marks' | 'pins';
const LIST = { pause: 'pauses', mark: 'marks', pin: 'pins' } as const;

/** What a time of a move holds on to: the path, and where one stands on it the time itself. */
export function anchorAtTime(path: MovePath, time: number): Anchor {
  const at = path.stationAt(time);
  const stands = path.stationAt(time + 0.1) - at < STANDING || at - path.stationAt(time - 0.1) < STANDING;
  return stands ? { by: 'time', time } : path.anchorAt(at);
}

const changePace = (row: Row<'move'>, label: string, change: (pace: Walk['pace']) => Walk['pace']) =>
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
      const speed = Math.max(0.05, Number((path.topSpeed * NEW_MARK.part).toFixed(2)));
      return { ...pace, marks: [...(pace.marks ?? []), { id, anchor, length: NEW_MARK.length, speed }] };
    });
  else
    changePace(row, 'Timing pin', (pace) => ({
      ...pace,
      pins: [...(pace.pins ?? []), { id, anchor, time: Math.max(0.04, time) }],
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

/** What the free eye looks at becomes the gaze of the walk for some seconds from now on. */
export function keepAsGaze(row: Row<'move'>, move: CompiledMove): void {
  const { scout, time } = workbench.get();
  if (!scout) return;
  const { pan, tilt } = anglesOf(scout.orientation);
  addGazeSpan(row, move, Math.min(time, move.duration), { kind: 'bearing', pan, tilt });
  workbench.set({ scout: null });
}

/**
 * Changes an item of a walk's strips.
 * @param item as it was when the hand took hold of it
 * @param move the walk as it was then: times in it do not run away under the hand
 */
export function editItem(row: Row<'move'>, move: CompiledMove, item: ChannelItem, change: ItemChange): void {
  if (item.kind === 'gaze') editSpan(row, move, item, change);
  else editPaceItem(row, move, item.kind, item, change);
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
      if (to - from < SHORTEST_PAUSE) return [span];
      return [{ ...span, from: anchorAtTime(path, from), to: anchorAtTime(path, to) }];
    }),
  }));
}

function editPaceItem(
  row: Row<'move'>,
  { path }: CompiledMove,
  kind: keyof typeof LIST,
  item: ChannelItem,
  change: ItemChange,
): void {
  if (!path) return;
  const list: Items = LIST[kind];
  const edit = <T extends { id: string }>(items: readonly T[] | undefined, to: (one: T) => T): T[] =>
    (items ?? []).flatMap((one) => (one.id !== item.id ? [one] : change.by === 'remove' ? [] : [to(one)]));
  /** A pause lasts: to the right it is pushed by its end, to the left by its beginning. */
  const shifted = (seconds: number) =>
    path.anchorAt(path.stationAt(seconds < 0 ? item.from + seconds : item.to + seconds));
  changePace(row, change.by === 'remove' ? 'Take it out of the pace' : 'Pace', (pace) => {
    if (list === 'pauses')
      return {
        ...pace,
        pauses: edit(pace.pauses, (pause) => {
          if (change.by === 'shift') return { ...pause, anchor: shifted(change.seconds) };
          if (change.by !== 'to') return pause;
          const seconds = Math.max(SHORTEST_PAUSE, item.to - item.from + change.seconds);
          return { ...pause, seconds: Number(Math.min(600, seconds).toFixed(2)) };
        }),
      };
    if (list === 'pins')
      return {
        ...pace,
        pins: edit(pace.pins, (pin) =>
          change.by === 'shift'
            ? { ...pin, time: Number(Math.min(3600, Math.max(0.04, item.from + change.seconds)).toFixed(3)) }
            : pin,
        ),
      };
    const [from, to] = [path.stationAt(item.from), path.stationAt(item.to)];
    return {
      ...pace,
      marks: edit(pace.marks, (mark) => {
        if (change.by === 'value')
          return { ...mark, speed: Number(Math.min(50, Math.max(0.05, change.value)).toFixed(2)) };
        if (change.by === 'remove') return mark;
        const start = change.by === 'to' ? from : path.stationAt(item.from + change.seconds);
        const end = change.by === 'from' ? to : path.stationAt(item.to + change.seconds);
        // Moved as a whole it stays as long as it is.
        const length = change.by === 'shift' ? mark.length : Math.max(0.1, end - start);
        return { ...mark, anchor: path.anchorAt((start + end) / 2), length };
      }),
    };
  });
}
