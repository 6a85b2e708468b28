import type { Movers } from '../action/index.ts';
import type { Vec3, Walker } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import type { Footing } from '../survey/index.ts';
import { roomAbout } from '../wayfind/index.ts';
import type { Severity } from './severity.ts';

/** A path is looked at so often, metres: between two such places the room changes by no more than that. */
const STEP = 0.05;
/** Apart from each other by less, two stretches are one, metres. */
const JOINED = 0.4;
/** Who misses less than this of the room passes, metres. */
const UNFELT = 0.005;
/** Shoulders that have no more than this part of their room brush along. */
const BRUSHES = 0.6;

/** What moves is looked for at this height over the floor, metres. */
const BREAST = 1;

/** A stretch of a walk that is narrower than the shoulders. */
export interface TightPlace {
  severity: Severity;
  /** Stations, metres. */
  from: number;
  to: number;
  /** Least room to one side, metres, and where. */
  worst: number;
  station: number;
  point: Vec3;
}

/**
 * Where a walk comes nearer to something than the walker's shoulders need. Door leaves count where they stand.
 * @param movers what of them has moved away by then does not
 */
export function tightPlaces(
  { path, ground }: Pick<CompiledMove, 'path' | 'ground'>,
  footing: Footing,
  { radius, height }: Pick<Walker, 'radius' | 'height'>,
  movers: Movers | null = null,
): TightPlace[] {
  if (!path || !ground || !ground.knowsObstacles) return [];
  const found: TightPlace[] = [];
  const steps = Math.max(1, Math.ceil(path.length / STEP));
  for (let i = 0; i <= steps; i += 1) {
    const station = (path.length * i) / steps;
    const point = path.placeAt(station);
    const time = path.timeAt(station);
    const gone = (x: number, z: number) => movers?.isGone([x, point[1] + BREAST, z], time, radius) ?? false;
    const body = { eyeHeight: ground.eyeHeight, height, leaves: true, gone };
    const { free } = roomAbout(footing, ...point, body, radius);
    if (free >= radius - UNFELT) continue;
    const last = found.at(-1);
    if (!last || station - last.to > JOINED) {
      found.push({ severity: 'note', from: station, to: station, worst: free, station, point });
      continue;
    }
    last.to = station;
    if (free < last.worst) Object.assign(last, { worst: free, station, point });
  }
  for (const place of found) if (place.worst < BRUSHES * radius) place.severity = 'problem';
  return found;
}
