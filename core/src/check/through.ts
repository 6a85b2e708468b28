import type { Movers } from '../action/index.ts';
import type { Vec3 } from '../document/index.ts';
import { bodyHeights, type CompiledMove } from '../move/index.ts';
import type { Footing } from '../survey/index.ts';

/** A camera is moved along in pieces no longer than this, metres, and in no more than so many. */
const PIECE = 0.25;
const MOST_PIECES = 20_000;
/** Met again within this time it is one thing: both faces of a wall, seconds. */
const SAME_THING = 0.4;

/** A camera that goes through something. */
export interface Passage {
  /** seconds */
  from: number;
  to: number;
  /** Where it is met first, metres. */
  point: Vec3;
}

/** Where a camera passes through a surface, between any two instants. Reads samples only. */
export function passages(move: Pick<CompiledMove, 'duration' | 'sampleAt' | 'path'>, footing: Footing): Passage[] {
  if (!footing.knowsSolids) return [];
  const { duration, path } = move;
  const pieces = Math.min(MOST_PIECES, Math.max(24, Math.ceil((path?.length ?? 0) / PIECE)));
  const found: Passage[] = [];
  let before = move.sampleAt(0).position;
  for (let i = 1; i <= pieces; i += 1) {
    const now = move.sampleAt((duration * i) / pieces).position;
    for (const { at } of footing.solids.between(before, now)) {
      const time = (duration * (i - 1 + at)) / pieces;
      const last = found.at(-1);
      if (last && time - last.to < SAME_THING) last.to = Math.max(last.to, time);
      else
        found.push({ from: time, to: time, point: before.map((value, k) => value + (now[k]! - value) * at) as Vec3 });
    }
    before = now;
  }
  return found;
}

/** What moves is looked at so often, seconds. */
const INSTANT = 0.1;
/** Met again within this time it is one thing that goes past, seconds. */
const GOES_PAST = 2;

/**
 * Where something that moves comes to where a camera is, or the body of who walks, between any two instants.
 * @returns places where it was met as it rests
 */
export function meetings(
  move: Pick<CompiledMove, 'duration' | 'sampleAt' | 'path' | 'ground'>,
  footing: Footing,
  movers: Movers,
): Passage[] {
  if (!footing.knowsSolids) return [];
  const { duration, path, ground } = move;
  const steps = Math.min(MOST_PIECES, Math.max(1, Math.ceil(duration / INSTANT)));
  const bodyAt = (time: number): Vec3[] => {
    if (!path || !ground) return [[...move.sampleAt(time).position] as Vec3];
    const [x, y, z] = path.placeAt(path.stationAt(time));
    return bodyHeights(ground.eyeHeight).map((height): Vec3 => [x, y + height, z]);
  };
  const meets = (a: Vec3, b: Vec3) => footing.solids.between(a, b);
  const found: Passage[] = [];
  let [body, places] = [bodyAt(0), movers.placesAt(0)];
  for (let i = 1; i <= steps; i += 1) {
    const time = (duration * i) / steps;
    const [nextBody, nextPlaces] = [bodyAt(time), movers.placesAt(time)];
    for (const [k, from] of body.entries()) {
      const point = movers.meeting([from, nextBody[k]!], places, nextPlaces, meets);
      if (!point) continue;
      const last = found.at(-1);
      if (last && time - last.to < GOES_PAST) last.to = time;
      else found.push({ from: time, to: time, point });
      break;
    }
    [body, places] = [nextBody, nextPlaces];
  }
  return found;
}
