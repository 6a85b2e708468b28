import {
  PACE_LIMITS,
  type Anchor,
  type GazeSpan,
  type Key,
  type PathNode,
  type Tracks,
  type Walk,
  type WayAnchor,
} from '../document/index.ts';
import { otherPace } from '../pace/index.ts';
import { partOfGaze } from './gaze-target.ts';
import type { CompiledMove } from './sample.ts';

/** Nodes nearer to each other than this are one, metres. */
const SAME_PLACE = 0.05;

type Placed = { anchor: WayAnchor };
const kept = <T>(value: T | null): T[] => (value === null ? [] : [value]);
const least = (time: number) => Math.max(PACE_LIMITS.duration[0], time);

/**
 * A walk as two, where it goes through a node: what is held by nodes, stations or times goes with the part that it is
 * in, and is where it was. Null where there is nothing on one of the sides, and for a closed path.
 * @param move the same walk, compiled
 */
export function splitWalk(walk: Walk, move: CompiledMove, node: string): [Walk, Walk] | null {
  const { path, pace } = walk;
  const at = path.nodes.findIndex(({ id }) => id === node);
  if (path.closed || at < 1 || at > path.nodes.length - 2 || !move.path) return null;
  const [before, after] = [path.nodes.slice(0, at + 1), path.nodes.slice(at)];
  const { x, z } = path.nodes[at]!;
  const station = move.path.nearest(x, z);
  const time = move.path.timeAt(station);
  // What is looked at as time goes on is looked at in the same places.
  const spans = new Map(move.channels.find(({ id }) => id === 'gaze')?.items?.map((item) => [item.id, item]));
  const cut = (span: GazeSpan, before: boolean): GazeSpan => {
    const { from, to } = spans.get(span.id) ?? { from: 0, to: 0 };
    const part = to > from ? Math.min(1, Math.max(0, (time - from) / (to - from))) : 0;
    return part <= 0 || part >= 1
      ? span
      : { ...span, gaze: partOfGaze(span.gaze, before ? 0 : part, before ? part : 1) };
  };
  const first = partOf(
    { ...walk, gaze: partOfGaze(walk.gaze, 0, time / move.duration), ...cutSpans(walk, (span) => cut(span, true)) },
    before,
    (anchor) =>
      anchor.by === 'time'
        ? anchor.time <= time
        : anchor.by === 'station'
          ? anchor.station <= station
          : has(before, anchor.node) && !(anchor.node === node && anchor.offset > 0),
    (anchor) => anchor,
  );
  const second = partOf(
    { ...walk, gaze: partOfGaze(walk.gaze, time / move.duration, 1), ...cutSpans(walk, (span) => cut(span, false)) },
    after,
    (anchor) =>
      anchor.by === 'time'
        ? anchor.time >= time
        : anchor.by === 'station'
          ? anchor.station >= station
          : has(after, anchor.node) && !(anchor.node === node && anchor.offset < 0),
    (anchor) =>
      anchor.by === 'time'
        ? { ...anchor, time: anchor.time - time }
        : anchor.by === 'station'
          ? { ...anchor, station: anchor.station - station }
          : anchor,
  );
  const pins = second.pace.pins?.map((pin) => ({ ...pin, time: Math.max(PACE_LIMITS.pin[0], pin.time - time) }));
  return [
    { ...first, pace: { ...first.pace, duration: least(pace.by === 'duration' ? time : pace.duration) } },
    {
      ...second,
      pace: {
        ...second.pace,
        duration: least(pace.by === 'duration' ? move.duration - time : pace.duration),
        ...(pins && { pins }),
      },
    },
  ];
}

const cutSpans = ({ gazeSpans }: Walk, cut: (span: GazeSpan) => GazeSpan) => ({
  ...(gazeSpans && { gazeSpans: gazeSpans.map(cut) }),
});

const has = (nodes: readonly PathNode[], id: string) => nodes.some((node) => node.id === id);

/** A walk along some of its nodes, with what is in that part. */
function partOf(
  walk: Walk,
  nodes: PathNode[],
  within: (anchor: Anchor) => boolean,
  moved: (anchor: Anchor) => Anchor,
): Walk {
  const { path, pace, gazeSpans, tracks } = walk;
  const place = <T extends Placed>(items: readonly T[]): T[] =>
    items.filter(({ anchor }) => within(anchor)).map((item) => ({ ...item, anchor: moved(item.anchor) as WayAnchor }));
  const { marks, pauses, pins } = pace;
  const [start, end] = [nodes[0]!, nodes.at(-1)!];
  // What reaches over the cut is cut as well.
  const span = (one: GazeSpan): GazeSpan | null => {
    const [from, to] = [within(one.from), within(one.to)];
    if (!from && !to) return null;
    return {
      ...one,
      from: from ? moved(one.from) : { by: 'node', node: start.id, offset: 0 },
      to: to ? moved(one.to) : { by: 'node', node: end.id, offset: 0 },
    };
  };
  const keys = (list: readonly Key[]) =>
    list.filter(({ anchor }) => within(anchor)).map((key) => ({ ...key, anchor: moved(key.anchor) }));
  return {
    ...walk,
    path: { ...path, nodes },
    pace: otherPace(pace, {
      ...(marks && { marks: place(marks) }),
      ...(pauses && { pauses: place(pauses) }),
      ...(pins && { pins: place(pins) }),
    }),
    ...(gazeSpans && { gazeSpans: gazeSpans.flatMap((one) => kept(span(one))) }),
    ...(tracks && { tracks: mapTracks(tracks, keys) }),
  };
}

const mapTracks = (tracks: Tracks, change: (keys: readonly Key[]) => Key[]): Tracks =>
  Object.fromEntries(Object.entries(tracks).map(([name, keys]) => [name, change(keys)]));

/**
 * A walk that goes on along another one; where the one ends at the other's beginning, they share that node. Lens, light,
 * gaze and shape are those of the first.
 * @param first compiled, for how long and how far it goes
 * @param newId nodes and items of the second whose ids the first has already get others
 */
export function joinWalks(a: Walk, first: CompiledMove, b: Walk, newId: () => string): Walk {
  const last = a.path.nodes.at(-1);
  const begin = b.path.nodes[0];
  const shared = last && begin && Math.hypot(last.x - begin.x, last.y - begin.y, last.z - begin.z) < SAME_PLACE;
  const ids = new Map(b.path.nodes.map(({ id }) => [id, has(a.path.nodes, id) ? newId() : id]));
  if (shared) ids.set(begin.id, last.id);
  const gap = shared || !last || !begin ? 0 : Math.hypot(last.x - begin.x, last.z - begin.z);
  const { duration } = first;
  const length = (first.path?.length ?? 0) + gap;
  const later = (anchor: Anchor): Anchor =>
    anchor.by === 'node'
      ? { ...anchor, node: ids.get(anchor.node) ?? anchor.node }
      : anchor.by === 'station'
        ? { ...anchor, station: anchor.station + length }
        : { ...anchor, time: anchor.time + duration };
  const taken = new Set<string>();
  const known = (id: string) => (taken.has(id) ? newId() : (taken.add(id), id));
  const join = <T extends { id: string }>(
    mine: readonly T[] = [],
    theirs: readonly T[] = [],
    move: (one: T) => T,
  ): T[] => {
    mine.forEach(({ id }) => taken.add(id));
    return [...mine, ...theirs.map((one) => ({ ...move(one), id: known(one.id) }))];
  };
  const placed = <T extends Placed>(one: T): T => ({ ...one, anchor: later(one.anchor) as WayAnchor });
  const list = <K extends 'marks' | 'pauses'>(name: K) =>
    a.pace[name] || b.pace[name]
      ? { [name]: join<{ id: string; anchor: WayAnchor }>(a.pace[name], b.pace[name], placed) }
      : {};
  const names = new Set([...Object.keys(a.tracks ?? {}), ...Object.keys(b.tracks ?? {})] as (keyof Tracks)[]);
  return {
    ...a,
    path: {
      closed: false,
      nodes: [
        ...a.path.nodes,
        ...b.path.nodes.slice(shared ? 1 : 0).map((node) => ({ ...node, id: ids.get(node.id)! })),
      ],
    },
    pace: otherPace(a.pace, {
      ...list('marks'),
      ...list('pauses'),
      ...(a.pace.pins || b.pace.pins
        ? { pins: join(a.pace.pins, b.pace.pins, (pin) => ({ ...placed(pin), time: pin.time + duration })) }
        : {}),
      duration: Math.min(PACE_LIMITS.duration[1], a.pace.duration + b.pace.duration),
    }),
    ...(a.gazeSpans || b.gazeSpans
      ? {
          gazeSpans: join(a.gazeSpans, b.gazeSpans, (span) => ({
            ...span,
            from: later(span.from),
            to: later(span.to),
          })),
        }
      : {}),
    ...(names.size > 0
      ? {
          tracks: Object.fromEntries(
            [...names].map((name) => [
              name,
              join(a.tracks?.[name], b.tracks?.[name], (key) => ({ ...key, anchor: later(key.anchor) })),
            ]),
          ),
        }
      : {}),
  };
}
