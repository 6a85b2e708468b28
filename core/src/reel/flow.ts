import type { Vec3 } from '../document/index.ts';
import type { CameraSample } from '../move/index.ts';
import { Projection } from '../optics/index.ts';

/** How far away the nearest thing along a ray is, metres; null where there is none within `far`. */
export type RayCast = (from: Vec3, direction: Vec3, far: number) => number | null;

/** Places of the picture that are looked at, across and up: the middles of as many fields. */
export const ACROSS = 8;
export const UP = 5;
/** What is farther away moves only when the camera turns, metres. */
const FAR = 500;

/** How the picture moves, at a grid of its places. */
export interface ImageFlow {
  /** Places, −1…1 from the centre to the right and the upper edge, two numbers each. */
  places: Float64Array;
  /** Velocities, frame widths a second to the right and up, two numbers each. */
  velocities: Float64Array;
  /** Mean of their sizes, frame widths a second. */
  speed: number;
}

/**
 * Image velocity of scene points on a grid: where each is now, and where the same point of the scene is a moment later.
 * What moves by itself counts as if it stood.
 * @param at seconds @param step of time, seconds: a frame
 * @param aspect width over height
 */
export function imageFlow(
  sampleAt: (time: number) => CameraSample,
  at: number,
  step: number,
  aspect: number,
  cast: RayCast,
): ImageFlow {
  const [now, then] = [sampleAt(at), sampleAt(at + step)];
  const here = new Projection(now.view, aspect, now.position, now.orientation);
  const there = new Projection(then.view, aspect, then.position, then.orientation);
  const count = ACROSS * UP;
  const places = flowPlaces();
  const velocities = new Float64Array(2 * count);
  let sum = 0;
  for (let i = 0; i < count; i += 1) {
    const [x, y] = [places[2 * i]!, places[2 * i + 1]!];
    const { from, direction } = here.ray(x, y);
    const away = cast(from, direction, FAR) ?? FAR;
    const seen = there.project(from.map((value, k) => value + direction[k]! * away) as Vec3);
    // A full width is two of the picture's units, a full height two as well.
    const u = (seen.x - x) / 2 / step;
    const v = (seen.y - y) / 2 / aspect / step;
    if (seen.depth <= 0 || !Number.isFinite(u) || !Number.isFinite(v)) continue;
    velocities.set([u, v], 2 * i);
    sum += Math.hypot(u, v);
  }
  return { places, velocities, speed: sum / count };
}

/** The places that are looked at, row by row from the foot, two numbers each. */
export function flowPlaces(): Float64Array {
  const places = new Float64Array(2 * ACROSS * UP);
  for (let i = 0; i < ACROSS * UP; i += 1)
    places.set([(2 * ((i % ACROSS) + 0.5)) / ACROSS - 1, (2 * (Math.floor(i / ACROSS) + 0.5)) / UP - 1], 2 * i);
  return places;
}

/** The flow of what does not move. */
export const NO_FLOW: ImageFlow = { places: flowPlaces(), velocities: new Float64Array(2 * ACROSS * UP), speed: 0 };
