import type { Matrix4 } from 'three';
import { takenBy, type Movers } from '../action/index.ts';
import type { Bounds, Vec3 } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import type { Footing } from '../survey/index.ts';
import { addSpan, joinedCovers, stepsOver, type Cover } from './cover.ts';

/** An object that is looked for. */
export interface CoveredObject {
  model: string;
  name: string;
  /** Where it rests, metres. */
  bounds: Bounds;
  /** What takes it from there to where it is at a time of the site, seconds; absent: it stands still. */
  placeAt?: (siteTime: number) => Matrix4;
}

/** How long an object is seen: enough of it in the picture, large enough, with nothing before it. */
export interface ObjectCover extends Cover {
  model: string;
  name: string;
}

/** Places along each side of an object that are looked at, as parts of it. */
const ALONG = [0.1, 0.5, 0.9];
/** It is seen where this part of them is. */
const ENOUGH = 0.25;
/** What is smaller than this part of the picture's height is not noticed (common practice, no source). */
const SMALLEST = 0.025;
/** What is hit so shortly before it belongs to it, metres. */
const OWN = 0.02;

/** Objects of which nothing has been seen yet. */
export const unseenObjects = (objects: readonly CoveredObject[]): ObjectCover[] =>
  objects.map(({ model, name }) => ({ model, name, seen: 0, spans: [] }));

/** How long a shot shows objects. Reads samples only; times are seconds since its first frame. */
export function objectCover(
  shot: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  footing: Footing,
  objects: readonly CoveredObject[],
  aspect: number,
  movers: Movers | null = null,
): ObjectCover[] {
  const covers = unseenObjects(objects);
  if (objects.length === 0) return covers;
  for (const { from, at, to } of stepsOver(shot.duration)) {
    const { view, position, orientation, siteTime } = shot.sampleAt(at);
    const projection = new Projection(view, aspect, position, orientation);
    const gone = movers?.goneAt(siteTime);
    objects.forEach((object, k) => {
      if (!showsObject(projection, footing, object, siteTime, gone)) return;
      covers[k]!.seen += to - from;
      addSpan(covers[k]!.spans, [from, to]);
    });
  }
  return covers;
}

/** What shots show of objects, one after the other. */
export const joinObjectCovers = (shots: readonly { start: number; cover: readonly ObjectCover[] }[]): ObjectCover[] =>
  joinedCovers(shots, ({ model, name }) => `${model}\n${name}`);

/** Is enough of an object in the picture, large enough, with nothing before it? Glass hides nothing. */
export function showsObject(
  projection: Projection,
  footing: Footing,
  { bounds, placeAt }: Pick<CoveredObject, 'bounds' | 'placeAt'>,
  siteTime: number,
  gone?: (point: Vec3) => boolean,
): boolean {
  const moved = placeAt?.(siteTime) ?? null;
  const eye = moved ? takenBy(moved.clone().invert(), projection.position) : projection.position;
  let seen = 0;
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const at of placesIn(bounds)) {
    const place = moved ? takenBy(moved, at) : at;
    const { x, y, depth } = projection.project(place);
    if (depth <= 0 || Math.abs(x) > 1 || Math.abs(y) > 1) continue;
    [left, right, low, high] = [Math.min(left, x), Math.max(right, x), Math.min(low, y), Math.max(high, y)];
    // Up to where the line of sight enters its extent, whatever is in the way is something else.
    const inside = lengthInside(eye, at, bounds);
    if (!footing.hiding(projection.position, place, inside + OWN, gone)) seen += 1;
  }
  const { window } = projection;
  const aspect = (window.right - window.left) / (window.top - window.bottom);
  const size = Math.max(((right - left) * aspect) / 2, (high - low) / 2) / (ALONG.at(-1)! - ALONG[0]!);
  return seen >= ENOUGH * ALONG.length ** 3 && size >= SMALLEST;
}

function placesIn({ min, max }: Bounds): Vec3[] {
  const between = (k: number, part: number) => min[k]! + (max[k]! - min[k]!) * part;
  return ALONG.flatMap((x) =>
    ALONG.flatMap((y) => ALONG.map((z): Vec3 => [between(0, x), between(1, y), between(2, z)])),
  );
}

/** How much of the way from an eye to a place inside an extent lies in it, metres. */
function lengthInside(eye: Readonly<Vec3>, place: Readonly<Vec3>, { min, max }: Bounds): number {
  const way = place.map((value, k) => value - eye[k]!);
  let enters = 0;
  way.forEach((step, k) => {
    if (step === 0) return;
    enters = Math.max(enters, Math.min((min[k]! - eye[k]!) / step, (max[k]! - eye[k]!) / step));
  });
  return (1 - enters) * Math.hypot(...way);
}
