import type { ProjectBody } from '@eskovan/core/document';
import type { Survey } from '@eskovan/core/survey';

/** A storey's name belongs to the storey within this height, a room's to the room within this distance, metres. */
const SAME_STOREY = 0.5;
const SAME_ROOM = 3;

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
      name:
        storeyNames.find(({ elevation }) => Math.abs(elevation - storey.elevation) < SAME_STOREY)?.name ?? storey.name,
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
