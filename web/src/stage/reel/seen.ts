import type { ObjectCover, RoomCover } from '@eskovan/core/check';
import type { PromisedObject } from '@eskovan/core/document';

/** What is seen for less is not seen, seconds. */
const SEEN = 0.05;

/** What a reel shows, a room or an object, and when. */
export interface Seen {
  key: string;
  name: string;
  /** Where it is, in a word; empty where that says nothing. */
  where: string;
  kind: 'room' | 'object';
  /** Seconds in the picture; and in which the camera is in it, for rooms. */
  seen: number;
  inside: number | null;
  spans: readonly (readonly [from: number, to: number])[];
}

/** What is seen, in the order in which it is seen first: rooms, then objects that were promised. */
export function seenThings(rooms: readonly RoomCover[], objects: readonly ObjectCover[]): Seen[] {
  const ofRooms = rooms.map(({ room, storey, ...cover }): Seen => ({
    key: `${storey} ${room}`,
    name: room,
    where: storey,
    kind: 'room',
    ...cover,
  }));
  const ofObjects = objects.map(({ model, name, seen, spans }): Seen => ({
    key: `${model} ${name}`,
    name,
    where: name,
    kind: 'object',
    inside: null,
    seen,
    spans,
  }));
  const inOrder = (list: Seen[]) =>
    list.filter(({ seen }) => seen > SEEN).sort((a, b) => (a.spans[0]?.[0] ?? 0) - (b.spans[0]?.[0] ?? 0));
  return [...inOrder(ofRooms), ...inOrder(ofObjects)];
}

/** Promised rooms that are never seen; none while it is not known what is. */
export const missingRooms = (promised: readonly string[], rooms: readonly RoomCover[] | null): string[] =>
  rooms ? promised.filter((name) => !rooms.some(({ room, seen }) => room === name && seen > SEEN)) : [];

/** Promised objects that are never seen, and whether they are in the site at all. */
export function missingObjects(
  promised: readonly PromisedObject[],
  objects: readonly ObjectCover[],
): (PromisedObject & { there: boolean })[] {
  return promised.flatMap((one) => {
    const cover = objects.find(({ model, name }) => model === one.model && name === one.name);
    return cover && cover.seen > SEEN ? [] : [{ ...one, there: cover !== undefined }];
  });
}
