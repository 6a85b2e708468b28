import type { Vec3 } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { roomOfEye, type Footing, type Room } from '../survey/index.ts';

/** A storey, as far as knowing what is seen of it needs. */
export interface CoveredStorey {
  name: string;
  elevation: number;
  rooms: readonly Room[];
}

/** How long a move shows a room. */
export interface RoomCover {
  room: string;
  storey: string;
  /** Seconds in which enough of it is in the picture and nothing stands before it. */
  seen: number;
  /** Seconds in which the camera is in it. */
  inside: number;
  /** Stretches in which it is seen, seconds. */
  spans: [from: number, to: number][];
}

/** How often the camera is asked, seconds; longer moves are asked more seldom. */
const INSTANT = 0.25;
const MOST = 600;
/** Of every room so many places are looked at, so high over its floor, metres: a table's height and a person's chest. */
const PLACES = 16;
const HEIGHTS = [0.4, 1.3];
/** A room is seen from elsewhere where this part of it is. */
const ENOUGH = 0.2;
/** What is farther away is not seen as a room any more, metres. */
const FAR = 40;

/** How long a move shows every room of a site, those it does not show too. Reads samples only. */
export function coverageOf(
  move: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  footing: Footing,
  storeys: readonly CoveredStorey[],
  aspect: number,
): RoomCover[] {
  const rooms = storeys.flatMap((storey) =>
    storey.rooms.map((room) => ({
      room,
      places: placesOf(room),
      cover: { room: room.name, storey: storey.name, seen: 0, inside: 0, spans: [] } as RoomCover,
    })),
  );
  const steps = Math.max(1, Math.min(MOST, Math.ceil(move.duration / INSTANT)));
  const step = move.duration / steps;
  for (let i = 0; i < steps; i += 1) {
    // The middle of each step stands for all of it.
    const time = (i + 0.5) * step;
    const { view, position, orientation } = move.sampleAt(time);
    const projection = new Projection(view, aspect, position, orientation);
    const inside = roomOfEye(position, storeys);
    for (const { room, places, cover } of rooms) {
      if (room === inside) cover.inside += step;
      const seen = places.filter((place) => sees(projection, footing, place)).length;
      // Who is in a room sees the part of it that is before the lens: that is enough.
      if (seen < (room === inside ? 1 : ENOUGH * places.length)) continue;
      cover.seen += step;
      const last = cover.spans.at(-1);
      if (last && i * step - last[1] < 1e-6) last[1] = (i + 1) * step;
      else cover.spans.push([i * step, (i + 1) * step]);
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

function sees(projection: Projection, footing: Footing, place: Vec3): boolean {
  const { position } = projection;
  if (Math.hypot(...place.map((value, k) => value - position[k]!)) > FAR) return false;
  const at = projection.project(place);
  return Math.abs(at.x) <= 1 && Math.abs(at.y) <= 1 && at.depth > 0 && !footing.hiding(position, place);
}
