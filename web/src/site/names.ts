import type { ProjectBody } from '@eskovan/core/document';
import type { Survey } from '@eskovan/core/survey';

/** A storey's name belongs to the storey within this height, metres. */
const SAME_STOREY = 0.5;
/** A room's name belongs to the room that its place lies in: this near to one of the room's own, this near its floor. */
const SAME_ROOM = 1.2;
const SAME_FLOOR = 1.2;
/** Of rooms whose places are not known only the middle is; metres. */
const NEAR_MIDDLE = 3;

/** Does a name that somebody gave belong to a storey of this height? */
export const isNameOf = (name: ProjectBody['storeyNames'][number], elevation: number): boolean =>
  Math.abs(name.elevation - elevation) < SAME_STOREY;

/** Puts the names that people gave onto what was found. */
export function nameStoreys(
  survey: Survey,
  storeyNames: ProjectBody['storeyNames'],
  roomNames: ProjectBody['roomNames'],
): Survey {
  return {
    ...survey,
    storeys: survey.storeys.map((storey) => ({
      ...storey,
      name: storeyNames.find((name) => isNameOf(name, storey.elevation))?.name ?? storey.name,
      rooms: storey.rooms.map((room) => {
        const near = roomNames
          .map(({ at, name }) => ({ name, distance: distanceTo(room, at) }))
          .filter(({ distance }) => distance < (room.places.length > 0 ? SAME_ROOM : NEAR_MIDDLE))
          .sort((a, b) => a.distance - b.distance)[0];
        return near ? { ...room, name: near.name } : room;
      }),
    })),
  };
}

type Room = Survey['storeys'][number]['rooms'][number];

/** How far a place is from the nearest of a room's, in plan; Infinity on another floor. */
function distanceTo({ at, places }: Room, [x, y, z]: Room['at']): number {
  if (Math.abs(y - at[1]) > SAME_FLOOR) return Infinity;
  let best = Math.hypot(x - at[0], z - at[2]);
  for (let i = 0; i < places.length; i += 2) best = Math.min(best, Math.hypot(x - places[i]!, z - places[i + 1]!));
  return best;
}
