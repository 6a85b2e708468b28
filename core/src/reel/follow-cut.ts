import type { CameraSample, Looked } from '../move/index.ts';
import { cutOutSize, Projection } from '../optics/index.ts';
import type { ShotCamera } from './shot-camera.ts';

/** A cut-out is placed by what its subject does this often, seconds, and softened over so many to both sides. */
const INSTANT = 0.2;
const SOFT = 1.2;
/** So far from the middle of the cut-out a subject leaves it: a part of half its width. */
const EDGE = 1;

/** Where a cut-out lies in the pictures of a shot, and when its subject is outside it all the same. */
export interface CutTrack {
  /** −1 at the left edge of the whole picture, 1 at the right. @param seconds since the first frame of the shot */
  at(seconds: number): number;
  /** Stretches in which the subject is not in it, seconds since the first frame. */
  away: readonly (readonly [from: number, to: number])[];
}

/** A cut-out that stays where it was put. */
export const heldCut = (aside: number): CutTrack => ({ at: () => aside, away: [] });

/**
 * A cut-out that follows what the camera looks at, softly and never beyond the whole picture; in the middle where that is
 * nothing. Reads samples only.
 * @param sampleAt the camera, by seconds since the first frame of the shot @param timeOf seconds into its source
 */
export function followCut(
  camera: ShotCamera,
  {
    seconds,
    sampleAt,
    timeOf,
  }: { seconds: number; sampleAt: (at: number) => CameraSample; timeOf: (at: number) => number },
  whole: number,
  ratio: number,
): CutTrack {
  const looks = camera.kind === 'move' ? camera.move.looks : [];
  const { width } = cutOutSize(whole, ratio);
  if (looks.length === 0 || width >= 1) return heldCut(0);
  const steps = Math.max(1, Math.ceil(seconds / INSTANT));
  const times = Array.from({ length: steps + 1 }, (_, i) => (seconds * i) / steps);
  const places = times.map((at) => placeOf(looks, timeOf(at), sampleAt(at), whole));
  // Of a picture of half-width 1 the cut-out has `width`: its middle may go as far as the rest.
  const asides = places.map((x) => Math.min(1, Math.max(-1, (x ?? 0) / (1 - width))));
  const known = places.some((x) => x !== null) ? carriedOver(asides, places) : asides;
  const soft = softened(known, SOFT / (seconds / steps));
  const at = (now: number) => {
    const place = (Math.min(seconds, Math.max(0, now)) / seconds) * steps;
    const i = Math.min(steps - 1, Math.floor(place));
    return soft[i]! + (soft[i + 1]! - soft[i]!) * (place - i);
  };
  const outside = places.map((x, i) => x !== null && Math.abs(x - soft[i]! * (1 - width)) > EDGE * width);
  return { at, away: stretches(outside, times) };
}

/** Across the picture, −1 to 1; null where nothing is looked at, or it is behind the eye. */
function placeOf(looks: readonly Looked[], time: number, sample: CameraSample, whole: number): number | null {
  const look = looks.find(({ from, to }) => time >= from - 1e-6 && time <= to + 1e-6);
  if (!look) return null;
  const seen = new Projection(sample.view, whole, sample.position, sample.orientation).project(look.at(time));
  return seen.depth > 0 ? seen.x : null;
}

/** Where nothing is looked at, it stays where it was; before the first, where it will be. */
function carriedOver(asides: readonly number[], places: readonly (number | null)[]): number[] {
  let last = asides[places.findIndex((x) => x !== null)]!;
  return asides.map((value, i) => (places[i] === null ? last : (last = value)));
}

/** A weighted mean over its neighbours: bounded by them, and without kinks. @param reach in steps */
function softened(values: readonly number[], reach: number): number[] {
  const to = Math.ceil(reach);
  const weights = Array.from({ length: 2 * to + 1 }, (_, k) => 1 + Math.cos((Math.PI * (k - to)) / (to + 1)));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  return values.map(
    (_, i) =>
      weights.reduce(
        (sum, weight, k) => sum + weight * values[Math.min(values.length - 1, Math.max(0, i + k - to))]!,
        0,
      ) / whole,
  );
}

function stretches(flags: readonly boolean[], times: readonly number[]): [number, number][] {
  const out: [number, number][] = [];
  flags.forEach((flag, i) => {
    if (!flag) return;
    if (i > 0 && flags[i - 1]) out.at(-1)![1] = times[i]!;
    else out.push([times[i]!, times[i]!]);
  });
  return out;
}
