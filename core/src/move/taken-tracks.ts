import { MOST_KEYS, type Anchor, type Key, type TrackName, type Tracks } from '../document/index.ts';
import { nearestTurn, toDegrees } from '../geometry/index.ts';
import { mainPoints } from '../path/index.ts';
import type { Channel } from '../track/index.ts';

/** What turns, leans and shifts a camera: who takes over its places and looks has it already. */
const IN_PLACES: readonly TrackName[] = ['roll', 'truck', 'pedestal', 'dolly', 'pan', 'tilt'];

/** Do tracks turn, lean or shift the camera? */
export const movesCamera = (tracks: Tracks | undefined): boolean =>
  IN_PLACES.some((name) => (tracks?.[name]?.length ?? 0) > 0);

/**
 * The tracks that stay beside places and looks that are taken over from a move: those of its lens. Null where there are
 * none.
 * @param held where a key is from now on
 */
export function besidePlaces(tracks: Tracks | undefined, held: (anchor: Anchor) => Anchor): Tracks | null {
  const names = (Object.keys(tracks ?? {}) as TrackName[]).filter((name) => !IN_PLACES.includes(name));
  const stay = names.map((name) => [name, tracks![name]!.map((key) => ({ ...key, anchor: held(key.anchor) }))]);
  return stay.length > 0 ? (Object.fromEntries(stay) as Tracks) : null;
}

/**
 * The same for a move that goes round, or whose tracks go by another clock than seconds: as what it does over time.
 * @param channels of that move @param times instants, seconds
 */
export function besideAsTheyGo(
  channels: readonly Channel[],
  times: readonly number[],
  newId: () => string,
): Tracks | null {
  const stay = channels.flatMap(({ at, track }) => {
    if (!track || IN_PLACES.includes(track.name)) return [];
    const values = track.keys.map(({ value }) => value);
    const off = (Math.max(...values) - Math.min(...values)) * FOLLOWED;
    return [[track.name, straightKeys(times.map(at), times, off, newId)] as const];
  });
  return stay.length > 0 ? (Object.fromEntries(stay) as Tracks) : null;
}
/** Lines may be off by this part of what changes. */
const FOLLOWED = 1 / 1000;

/** A lean of less than this is none, and lines may be so far off, degrees. */
const LEANS = 0.02;

/**
 * A lean as keys, as few as say it. Null where nothing leans.
 * @param leans at every instant, radians @param times of those, seconds
 */
export function leanKeys(leans: readonly number[], times: readonly number[], newId: () => string): Key[] | null {
  let before = 0;
  const degrees = leans.map((lean) => toDegrees((before = nearestTurn(lean, before))));
  if (degrees.every((lean) => Math.abs(lean) < LEANS)) return null;
  const within = degrees.map((lean) => Math.min(180, Math.max(-180, lean)));
  return straightKeys(within, times, LEANS, newId);
}

/** Values as keys with straight lines between them, as few as are nowhere off by more than that. */
function straightKeys(values: readonly number[], times: readonly number[], off: number, newId: () => string): Key[] {
  // Time is drawn out, so that what is off is off in values.
  const [long, wide] = [times.at(-1)! - times[0]!, Math.max(...values) - Math.min(...values)];
  const drawn = long > 0 ? (1e4 * Math.max(wide, off)) / long : 1;
  const points = values.map((value, i): [number, number, number] => [drawn * times[i]!, 0, value]);
  let stay = mainPoints(points, off);
  for (let more = 2 * off; stay.length > MOST_KEYS; more *= 2) stay = mainPoints(points, more);
  return stay.map((i) => ({
    id: newId(),
    anchor: { by: 'time', time: times[i]! },
    value: values[i]!,
    ease: 'straight',
  }));
}
