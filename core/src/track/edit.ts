import type { Anchor, Key, Tracks } from '../document/index.ts';

const timeOfKey = ({ anchor }: Key) => (anchor.by === 'time' ? anchor.time : null);

/** All keys of a move with other anchors. */
export const withAnchors = (tracks: Tracks, change: (anchor: Anchor) => Anchor): Tracks =>
  Object.fromEntries(
    Object.entries(tracks).map(([name, keys]) => [name, keys.map((key) => ({ ...key, anchor: change(key.anchor) }))]),
  );

/** Adds a key; one at the very same anchor takes its value instead. */
export function insertKey(keys: readonly Key[], key: Key): Key[] {
  const same = keys.find(({ anchor }) => sameAnchor(anchor, key.anchor));
  return same ? keys.map((one) => (one === same ? { ...one, value: key.value } : one)) : [...keys, key];
}

/** Moves a key to a time and a value; one that was held by the path is held by its time from then on. */
export function moveKey(keys: readonly Key[], id: string, time: number, value: number): Key[] {
  return keys.map((key) => (key.id === id ? { ...key, anchor: { by: 'time', time: Math.max(0, time) }, value } : key));
}

/** The keys of a {@link raiseAbout}: before, at and after the place that is raised. */
export type RaiseIds = readonly [before: string, at: string, after: string];

/**
 * Raises a track about one instant only: a key there, and one to either side that keeps what was. Where a key stands
 * between already, the raise ends at that one. Raising again with the same ids replaces the raise.
 * @param ends where the raise begins and ends, seconds @param was value of the track at a time before it was raised
 */
export function raiseAbout(
  keys: readonly Key[],
  ids: RaiseIds,
  time: number,
  value: number,
  ends: readonly [number, number],
  was: (time: number) => number,
): Key[] {
  const others = keys.filter(({ id }) => !ids.includes(id));
  const key = (id: string, at: number, height: number): Key => {
    return { id, anchor: { by: 'time', time: at }, value: height, ease: 'smooth' };
  };
  const between = (from: number, to: number) =>
    others.some((other) => {
      const at = timeOfKey(other);
      return at !== null && at >= from && at <= to;
    });
  return [
    ...others,
    ...(ends[0] < time && !between(ends[0], time) ? [key(ids[0], ends[0], was(ends[0]))] : []),
    key(ids[1], time, value),
    ...(ends[1] > time && !between(time, ends[1]) ? [key(ids[2], ends[1], was(ends[1]))] : []),
  ];
}

export function removeKey(keys: readonly Key[], id: string): Key[] {
  return keys.filter((key) => key.id !== id);
}

/** Stretches the times between two instants about the first one; what comes later moves along. Path anchors stay. */
export function stretchKeys(keys: readonly Key[], from: number, to: number, factor: number): Key[] {
  const later = (to - from) * (factor - 1);
  return retime(keys, (time) => (time <= from ? time : time <= to ? from + (time - from) * factor : time + later));
}

/** Moves everything from an instant on by some seconds; nothing goes before that instant's new place, or before 0. */
export function rippleKeys(keys: readonly Key[], from: number, by: number): Key[] {
  return retime(keys, (time) => (time < from ? time : Math.max(0, time + by)));
}

/** Keys before and from an instant on; the second begin at 0. */
export function splitKeys(keys: readonly Key[], at: number): [Key[], Key[]] {
  const before = keys.filter((key) => (timeOfKey(key) ?? 0) < at);
  const after = keys.filter((key) => !before.includes(key));
  return [before, retime(after, (time) => time - at)];
}

/** One track after another: the second begins at an instant. */
export function mergeKeys(first: readonly Key[], second: readonly Key[], at: number): Key[] {
  return [...first, ...retime(second, (time) => time + at)];
}

function retime(keys: readonly Key[], change: (time: number) => number): Key[] {
  return keys.map((key) =>
    key.anchor.by === 'time' ? { ...key, anchor: { by: 'time', time: change(key.anchor.time) } } : { ...key },
  );
}

function sameAnchor(a: Anchor, b: Anchor): boolean {
  if (a.by === 'time') return b.by === 'time' && Math.abs(a.time - b.time) < 1e-6;
  if (a.by === 'station') return b.by === 'station' && Math.abs(a.station - b.station) < 1e-6;
  return b.by === 'node' && a.node === b.node && Math.abs(a.offset - b.offset) < 1e-6;
}
