import type { CameraSample, Looked } from '../move/index.ts';
import { cutOutSize, Projection } from '../optics/index.ts';
import { lookAt, type ShotCamera } from './shot-camera.ts';

/** A cut-out is placed by what its subject does this often, seconds, and softened over so many to both sides. */
const INSTANT = 0.2;
const SOFT = 1.2;

/** Where a cut-out lies in the pictures of a shot, and when its subject is outside it all the same. */
export interface CutTrack {
  /** −1 at the left edge of the whole picture, 1 at the right. @param seconds since the first frame of the shot */
  at(seconds: number): number;
  /** Stretches in which what is looked at is not in it, seconds since the first frame. */
  outside: readonly (readonly [from: number, to: number])[];
}

/** A shot as its camera goes through it. */
export interface CutShot {
  /** How long it is. */
  seconds: number;
  /** The camera, by seconds since the first frame. */
  sampleAt: (at: number) => CameraSample;
  /** Seconds into its source. */
  timeOf: (at: number) => number;
}

/** Nothing is cut out. */
export const wholePicture: CutTrack = { at: () => 0, outside: [] };

/** A cut-out that stays where it was put. @param aside −1 at the left edge of the whole picture, 1 at the right */
export function heldCut(aside: number, camera: ShotCamera, shot: CutShot, whole: number, ratio: number): CutTrack {
  const at = () => aside;
  const { times, places } = placesIn(camera, shot, whole);
  return { at, outside: outsideOf(times, places, at, whole, ratio) };
}

/**
 * A cut-out that follows what the camera looks at, softly and never beyond the whole picture; in the middle where that is
 * nothing. Reads samples only.
 * @param whole width over height of the whole picture @param ratio of the cut-out
 */
export function followCut(camera: ShotCamera, shot: CutShot, whole: number, ratio: number): CutTrack {
  const { times, places } = placesIn(camera, shot, whole);
  const { width } = cutOutSize(whole, ratio);
  const at =
    width < 1 && places.some((place) => place !== null) ? softly(asidesOf(places, width), shot.seconds) : () => 0;
  return { at, outside: outsideOf(times, places, at, whole, ratio) };
}

/** Where something is in the picture, −1 to 1 across and upwards. */
type Place = readonly [x: number, y: number];

/** Where what is looked at is at evenly spread instants; null where that is nothing, or behind the eye. */
function placesIn(camera: ShotCamera, { seconds, sampleAt, timeOf }: CutShot, whole: number) {
  const looks: readonly Looked[] = camera.kind === 'move' ? camera.move.looks : [];
  const steps = Math.max(1, Math.ceil(seconds / INSTANT));
  const times = Array.from({ length: steps + 1 }, (_, i) => (seconds * i) / steps);
  const placeAt = (at: number): Place | null => {
    const look = lookAt(looks, timeOf(at));
    if (!look) return null;
    const sample = sampleAt(at);
    const projection = new Projection(sample.view, whole, sample.position, sample.orientation);
    const { x, y, depth } = projection.project(look.at(timeOf(at)));
    return depth > 0 ? [x, y] : null;
  };
  return { times, places: looks.length > 0 ? times.map(placeAt) : times.map(() => null) };
}

/**
 * Where the middle of the cut-out would best be. Where nothing is looked at, it stays where it was; before the first,
 * where it will be.
 */
function asidesOf(places: readonly (Place | null)[], width: number): number[] {
  // Of a picture of half-width 1 the cut-out has `width`: its middle may go as far as the rest.
  const asides = places.map((place) => place && Math.min(1, Math.max(-1, place[0] / (1 - width))));
  let last = asides.find((aside) => aside !== null) ?? 0;
  return asides.map((aside) => (last = aside ?? last));
}

/** A weighted mean over its neighbours: bounded by them, and without kinks. @param values evenly spread over so many seconds */
function softly(values: readonly number[], seconds: number): (at: number) => number {
  const steps = values.length - 1;
  const reach = Math.ceil((SOFT * steps) / seconds);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => 1 + Math.cos((Math.PI * (k - reach)) / (reach + 1)));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const nearby = (i: number) => values[Math.min(steps, Math.max(0, i))]!;
  const soft = values.map(
    (_, i) => weights.reduce((sum, weight, k) => sum + weight * nearby(i + k - reach), 0) / whole,
  );
  return (now) => {
    const place = (Math.min(seconds, Math.max(0, now)) / seconds) * steps;
    const i = Math.min(steps - 1, Math.floor(place));
    return soft[i]! + (soft[i + 1]! - soft[i]!) * (place - i);
  };
}

/** Instants that follow each other are one stretch. */
function outsideOf(
  times: readonly number[],
  places: readonly (Place | null)[],
  at: CutTrack['at'],
  whole: number,
  ratio: number,
): [number, number][] {
  const { width, height } = cutOutSize(whole, ratio);
  const out: [number, number][] = [];
  let was = false;
  times.forEach((time, i) => {
    const place = places[i];
    const is = !!place && (Math.abs(place[0] - at(time) * (1 - width)) > width || Math.abs(place[1]) > height);
    if (is && was) out.at(-1)![1] = time;
    else if (is) out.push([time, time]);
    was = is;
  });
  return out;
}
