import type { Vec3 } from '../document/index.ts';
import type { Room } from './rooms.ts';

/** In smaller sites than this nobody stands, metres: they are products. */
export const FOR_PEOPLE = 3;

/** An eye is at least this far above the floor it belongs to, metres: lower ones lie on the storey below. */
const LOWEST_EYE = 0.3;
/** Places of a room are about a metre apart: an eye this near to one is in the room, metres. */
const IN_ROOM = 0.85;
/** Nobody's eyes are higher over a room's floor, metres. */
const HIGHEST_EYE = 3.5;

/** Index of the storey that an eye stands on: the highest whose floor is below it. */
export function storeyOfEye(height: number, storeys: readonly { elevation: number }[]): number {
  const below = storeys
    .map(({ elevation }, i) => ({ elevation, i }))
    .filter(({ elevation }) => elevation <= height - LOWEST_EYE);
  return below.sort((a, b) => b.elevation - a.elevation)[0]?.i ?? 0;
}

/** The room that an eye is in; null outdoors, and above all rooms. */
export function roomOfEye(
  [x, y, z]: Readonly<Vec3>,
  storeys: readonly { elevation: number; rooms: readonly Room[] }[],
): Room | null {
  let best: { room: Room; away: number } | null = null;
  for (const room of storeys[storeyOfEye(y, storeys)]?.rooms ?? []) {
    if (y - room.at[1] > HIGHEST_EYE) continue;
    for (let i = 0; i < room.places.length; i += 2) {
      const away = Math.hypot(room.places[i]! - x, room.places[i + 1]! - z);
      if (away < (best?.away ?? IN_ROOM)) best = { room, away };
    }
  }
  return best?.room ?? null;
}
