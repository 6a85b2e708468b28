import {
  PACE_LIMITS,
  type Anchor,
  type MoveBody,
  type Row,
  type Travel,
  type Vec3,
  type Walk,
  type WayAnchor,
} from '@eskovan/core/document';
import { anchorAtTime, holdPose, removePose, shiftPoses, type CompiledMove, type MovePath } from '@eskovan/core/move';
import { changePaceItem, otherPace, removePaceItem, type PaceItemChange } from '@eskovan/core/pace';
import { deleteNode } from '@eskovan/core/path';
import type { ChannelItem } from '@eskovan/core/track';
import type { ItemChange } from '../../strips/strip-items.tsx';
import { editMove, editShared, keepPath, radiusOf } from './edit-move.ts';

type Nudge = Extract<ItemChange, { by: 'nudge' }>;

/** A step by keys from where an item is drawn. */
const drawnNudge = (item: ChannelItem, { seconds, value }: Nudge): ItemChange =>
  value !== 0 ? { by: 'value', value: (item.value ?? 0) + value } : { by: 'shift', seconds };

/** Where there are nodes, what holds on goes along with them; elsewhere it is at its time. */
export const anchorFor = (body: MoveBody, path: MovePath | null, time: number): Anchor =>
  path && 'path' in body ? anchorAtTime(path, time) : { by: 'time', time };

/** No gaze lasts less, seconds. */
const SHORTEST_SPAN = 0.1;
/** What a new item is, until somebody says otherwise. */
const NEW_PAUSE = 3;
const NEW_MARK = { length: 3, share: 0.3, part: 0.6 };
const NEW_SPAN = 4;

/** Says something of a pace besides how long or how fast it is: it is not kept as it was any longer. */
export const changePace = (row: Row<'move'>, label: string, change: (pace: Walk['pace']) => Walk['pace']) =>
  editShared(row, 'pace', label, (now) => ({ ...now, pace: change(otherPace(now.pace, {})) }));

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
      const speed = Math.max(PACE_LIMITS.speed[0], Number((path.topSpeed * NEW_MARK.part).toPrecision(2)));
      const length = Math.min(NEW_MARK.length, Math.max(PACE_LIMITS.length[0], NEW_MARK.share * path.length));
      return { ...pace, marks: [...(pace.marks ?? []), { id, anchor, length, speed }] };
    });
  else
    changePace(row, 'Timing pin', (pace) => ({
      ...pace,
      pins: [...(pace.pins ?? []), { id, anchor, time: Math.max(PACE_LIMITS.pin[0], time) }],
    }));
}

/** Lets a move look at something else for some seconds from a time on. */
export function addGazeSpan(
  row: Row<'move'>,
  move: CompiledMove,
  time: number,
  gaze: Walk['gaze'],
  id: string = crypto.randomUUID(),
): void {
  const { path, duration } = move;
  const to = Math.min(duration, time + NEW_SPAN);
  const from = Math.min(time, Math.max(0, to - NEW_SPAN));
  const span = {
    id,
    from: anchorFor(row.body, path, from),
    to: anchorFor(row.body, path, to),
    gaze,
    handOver: 1.2,
  };
  editShared(row, 'gaze', 'Look there for a while', (now) => ({ ...now, gazeSpans: [...(now.gazeSpans ?? []), span] }));
}

/**
 * Changes an item of a move's strips.
 * @param item as it was when the hand took hold of it
 * @param move the move as it was then: times in it do not run away under the hand
 */
export function editItem(row: Row<'move'>, move: CompiledMove, item: ChannelItem, given: ItemChange): void {
  const change = given.by === 'nudge' && item.kind !== 'pose' ? drawnNudge(item, given) : given;
  if (item.kind === 'gaze') editSpan(row, move, item, change);
  else if (item.kind === 'pose' && row.body.kind === 'orbit') raiseOrbit(row, move, item, change);
  else if (item.kind === 'pose') editPose(row, item, change);
  else if (row.body.kind === 'orbit') editStop(row, item, change);
  else editPaceItem(row, move, item, change);
}

function editSpan(row: Row<'move'>, { path, duration }: CompiledMove, item: ChannelItem, change: ItemChange): void {
  const within = (time: number) => Math.min(duration, Math.max(0, time));
  editShared(row, 'gaze', change.by === 'remove' ? 'Take a gaze away' : 'Move a gaze', (now) => ({
    ...now,
    gazeSpans: (now.gazeSpans ?? []).flatMap((span) => {
      if (span.id !== item.id) return [span];
      if (change.by === 'remove') return [];
      if (change.by === 'value') return [span];
      const from = change.by === 'to' ? item.from : within(item.from + change.seconds);
      const to = change.by === 'from' ? item.to : within(item.to + change.seconds);
      if (to - from < SHORTEST_SPAN) return [span];
      return [{ ...span, from: anchorFor(row.body, path, from), to: anchorFor(row.body, path, to) }];
    }),
  }));
}

/** A pose of a travel is moved in time, stayed at, or raised; a node of a glide is raised. */
function editPose(row: Row<'move'>, item: ChannelItem, change: ItemChange): void {
  if (row.body.kind === 'glide') {
    if (change.by === 'remove') keepPath(row, 'Delete a node', (path) => deleteNode(path, item.id));
    if (change.by !== 'value' && change.by !== 'nudge') return;
    const raised = (y: number) => (change.by === 'value' ? change.value : tidy(y + change.value, 6));
    keepPath(row, 'Raise a node', ({ nodes, ...path }) => ({
      ...path,
      nodes: nodes.map((node) => (node.id === item.id ? { ...node, y: raised(node.y) } : node)),
    }));
    return;
  }
  const label = change.by === 'remove' ? 'Delete a pose' : 'Move a pose';
  editMove(row, 'travel', label, (now) => ({ ...now, poses: posesWith(now.poses, item, change) }));
}

function posesWith(poses: Travel['poses'], item: ChannelItem, change: ItemChange): Travel['poses'] {
  const pose = poses.find(({ id }) => id === item.id);
  if (!pose) return poses;
  switch (change.by) {
    case 'remove':
      return removePose(poses, pose.id);
    case 'value':
      return poses.map((one) =>
        one === pose ? { ...one, position: [one.position[0], change.value, one.position[2]] } : one,
      );
    case 'nudge': {
      const [x, y, z] = pose.position;
      const raised = poses.map((one) =>
        one === pose ? { ...one, position: [x, tidy(y + change.value, 6), z] as Vec3 } : one,
      );
      return change.seconds === 0 ? raised : shiftPoses(poses, [pose.id], change.seconds, true);
    }
    case 'to':
      return holdPose(poses, pose.id, tidy(item.to - item.from + change.seconds, 3));
    default: {
      // From where it was taken hold of: what follows comes along.
      const wanted = item.from + poses[0]!.time + change.seconds;
      return shiftPoses(poses, [pose.id], tidy(wanted, 3) - pose.time, true);
    }
  }
}

/** The beginning of an orbit is raised by looking down more steeply, its end by a rise. */
function raiseOrbit(row: Row<'move'>, move: CompiledMove, item: ChannelItem, change: ItemChange): void {
  const pivot = move.looks[0]?.at(0);
  if ((change.by !== 'value' && change.by !== 'nudge') || !pivot) return;
  const height = change.by === 'value' ? change.value : (item.value ?? 0) + change.value;
  const radius = radiusOf(move, pivot);
  editMove(row, 'orbit', item.id === 'start' ? 'Inclination' : 'Rise', (now) => {
    const up = height - pivot[1];
    if (item.id === 'end') {
      const level = radius * (now.widens ?? 1) * Math.sin(now.inclination);
      return { ...now, rise: tidy(up - level, 6) };
    }
    const sine = Math.min(STEEPEST, Math.max(-STEEPEST, up / radius));
    return { ...now, inclination: Math.asin(sine) };
  });
}
/** Sine of the steepest look of an orbit. */
const STEEPEST = 0.999;

/** A stop of an orbit lasts longer or shorter, or goes. */
function editStop(row: Row<'move'>, item: ChannelItem, change: ItemChange): void {
  if (change.by === 'value') return;
  editMove(row, 'orbit', change.by === 'remove' ? 'Take a stop away' : 'Stop', (now) => ({
    ...now,
    stops: (now.stops ?? []).flatMap((stop) => {
      if (stop.id !== item.id) return [stop];
      if (change.by === 'remove') return [];
      if (change.by !== 'to') return [stop];
      const seconds = Math.max(PACE_LIMITS.pause[0], tidy(item.to - item.from + change.seconds, 2));
      return [{ ...stop, seconds }];
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
  if (change.by === 'value') return { speed: tidy(change.value, 4) };
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
