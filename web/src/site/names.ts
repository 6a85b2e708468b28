import type { ProjectBody } from '@eskovan/core/document';
import type { Survey } from '@eskovan/core/survey';

/** A storey's name belongs to the storey within this height, a room's to the room within this distance, metres. */
const SAME_STOREY = 0.5;
const SAME_ROOM = 3;

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
          .map(({ at, name }) => ({ name, distance: Math.hypot(...at.map((value, k) => value - room.at[k]!)) }))
          .filter(({ distance }) => distance < SAME_ROOM)
          .sort((a, b) => a.distance - b.distance)[0];
        return near ? { ...room, name: near.name } : room;
      }),
    })),
  };
}
