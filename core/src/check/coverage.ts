import type { Movers } from '../action/index.ts';
import type { Vec3 } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { roomOfEye, type Footing, type Room } from '../survey/index.ts';
import { addSpan, stepsOver, type Cover } from './cover.ts';

/** A storey, as far as knowing what is seen of it needs. */
export interface CoveredStorey {
  name: string;
  elevation: number;
  rooms: readonly Room[];
}

/** How long a move shows a room: enough of it, with nothing before it. */
export interface RoomCover extends Cover {
  room: string;
  storey: string;
  /** Seconds in which the camera is in it. */
  inside: number;
}

/** Of every room so many places are looked at, so high over its floor, metres: a table's height and a person's chest. */
const PLACES = 16;
const HEIGHTS = [0.4, 1.3];
/** A room is seen from elsewhere where this part of it is. */
const ENOUGH = 0.2;
/** What is farther away is not seen as a room any more, metres. */
const FAR = 40;

const unseenRoom = ({ name: room }: Room, { name: storey }: CoveredStorey): RoomCover => ({
  room,
  storey,
  seen: 0,
  inside: 0,
  spans: [],
});

/** Rooms of which nothing has been seen yet. */
export const unseenRooms = (storeys: readonly CoveredStorey[]): RoomCover[] =>
  storeys.flatMap((storey) => storey.rooms.map((room) => unseenRoom(room, storey)));

/**
 * How long a move shows every room of a site, those it does not show too. Reads samples only.
 * @param movers what may have gone from where it hides something
 */
export function coverageOf(
  move: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  footing: Footing,
  storeys: readonly CoveredStorey[],
  aspect: number,
  movers: Movers | null = null,
): RoomCover[] {
  const rooms = storeys.flatMap((storey) =>
    storey.rooms.map((room) => ({
      room,
      places: placesOf(room),
      cover: unseenRoom(room, storey),
    })),
  );
  for (const { from, at, to } of stepsOver(move.duration)) {
    const { view, position, orientation, siteTime } = move.sampleAt(at);
    const gone = movers?.goneAt(siteTime);
    const projection = new Projection(view, aspect, position, orientation);
    const inside = roomOfEye(position, storeys);
    for (const { room, places, cover } of rooms) {
      if (room === inside) cover.inside += to - from;
      const seen = places.filter((place) => sees(projection, footing, place, gone)).length;
      // Who is in a room sees the part of it that is before the lens: that is enough.
      if (seen < (room === inside ? 1 : ENOUGH * places.length)) continue;
      cover.seen += to - from;
      addSpan(cover.spans, [from, to]);
    }
  }
  return rooms.map(({ cover }) => cover);
}

/** Some places of a room, spread over it. */
function placesOf({ at, places }: Room): Vec3[] {
  const count = places.length / 2;
  const every = Math.max(1, Math.floor((HEIGHTS.length * count) / PLACES));
  const out: Vec3[] = [];
  for (let i = 0; i < count; i += every)
    for (const height of HEIGHTS) out.push([places[2 * i]!, at[1] + height, places[2 * i + 1]!]);
  return out;
}

function sees(projection: Projection, footing: Footing, place: Vec3, gone?: (point: Vec3) => boolean): boolean {
  const { position } = projection;
  if (Math.hypot(...place.map((value, k) => value - position[k]!)) > FAR) return false;
  const at = projection.project(place);
  return Math.abs(at.x) <= 1 && Math.abs(at.y) <= 1 && at.depth > 0 && !footing.hiding(position, place, 0, gone);
}
