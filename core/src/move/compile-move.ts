import { followTarget, type MovablePart, type SiteMotion } from '../action/index.ts';
import type { CheckLimits, Gaze, GazeAtObject, MoveBody, Pivot, Vec3, Walker } from '../document/index.ts';
import { aimMove, type NamedPart } from '../gaze/index.ts';
import { cornersOf, joinBounds, middle, toDegrees, toRadians } from '../geometry/index.ts';
import { viewAngles } from '../optics/index.ts';
import type { Footing } from '../survey/index.ts';
import { compileFollow, compileRide, findCarrier } from './carried.ts';
import { compileGlide } from './glide.ts';
import { CompiledOrbit, type PivotPlace } from './orbit.ts';
import { compileTravel } from './travel.ts';
import type { CompiledMove } from './sample.ts';
import { CompiledWalk, ITSELF } from './walk.ts';

/** What moves are made in: the site as they find it. */
export interface MoveSite {
  footing: Footing;
  walker: Pick<Walker, 'height' | 'step'>;
  /** At rest; none while they are not known yet. */
  parts: readonly (NamedPart & MovablePart)[];
  /** What moves of it; null where nothing does. */
  motion: SiteMotion | null;
  /** Width over height of the pictures. */
  aspect: number;
  /** How fast an eye may turn, and begin to. */
  limits: Pick<CheckLimits, 'turnNote' | 'turnProblem' | 'turnAcceleration' | 'crossing'>;
}

/** Does compiling it need the parts of the site? Without, it is not worth waiting for them. */
export function needsParts(body: MoveBody): boolean {
  if (body.kind === 'orbit') return body.pivot.kind === 'object';
  if (body.kind === 'ride') return true;
  return body.gaze.kind === 'object' || (body.gazeSpans ?? []).some(({ gaze }) => gaze.kind === 'object');
}

/** A move, ready to be played; null while there is not enough of it: a path of one place has no direction. */
export function compileMove(body: MoveBody, site: MoveSite): CompiledMove | null {
  try {
    return compiled(body, site);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

function compiled(body: MoveBody, site: MoveSite): CompiledMove {
  if (body.kind === 'orbit') return new CompiledOrbit(body, findPivot(body.pivot, site), site.aspect, site.footing);
  const { footing, walker, parts, motion, limits, aspect } = site;
  const eye = {
    turning: { rate: toRadians(limits.turnProblem), acceleration: toRadians(limits.turnAcceleration) },
    turnNote: limits.turnNote,
    targetOf: (gaze: GazeAtObject) => motion && followTarget(gaze, parts, motion),
    reachOf: (gaze: Gaze) => reachOf(gaze, parts),
    aspect,
  };
  switch (body.kind) {
    case 'walk': {
      // Who has the time turns as slowly as a picture wants it.
      const across = toDegrees(viewAngles(body.lens, aspect).horizontal) / limits.crossing;
      const comfort = Math.min(limits.turnNote, across);
      return new CompiledWalk(aimMove(body, parts), footing, { walker, comfort, ...eye });
    }
    case 'glide':
      return compileGlide(aimMove(body, parts), footing, eye);
    case 'travel':
      return compileTravel(aimMove(body, parts), footing, eye);
    case 'ride':
      return compileRide(aimMove(body, parts), footing, findCarrier(body.carrier, site), eye);
    case 'follow':
      return compileFollow(aimMove(body, parts), eye);
  }
}

/** No thing reaches farther than this from the place of it that is looked at, metres. */
const FARTHEST = 2.5;

/** How near to the place that is looked at the thing itself begins, metres. */
function reachOf(gaze: Gaze, parts: MoveSite['parts']): number {
  const part = gaze.kind === 'object' && parts.find(({ model, name }) => model === gaze.model && name === gaze.name);
  if (!part) return ITSELF;
  const { min, max } = part.bounds;
  const far = gaze.point.map((value, k) => Math.max(Math.abs(value - min[k]!), Math.abs(value - max[k]!)));
  return Math.min(FARTHEST, Math.max(ITSELF, Math.hypot(...far)));
}

/** What of a site an orbit goes round; where it is not there any more, the place where it was. */
export function findPivot(pivot: Pivot, { parts, motion }: Pick<MoveSite, 'parts' | 'motion'>): PivotPlace {
  if (pivot.kind === 'point') return nowhereElse(pivot.point);
  const { model, name, whole, point } = pivot;
  const mine = parts.filter((part) => part.model === model && (whole || part.name === name));
  const bounds = joinBounds(mine.map((part) => part.bounds));
  if (!bounds) return nowhereElse(point);
  const centre = middle(bounds);
  const moving =
    motion && !whole ? followTarget({ kind: 'object', model, name, point: centre, centre }, parts, motion) : null;
  const corners = mine.flatMap((part) => (part.outline ? pointsOf(part.outline) : cornersOf(part.bounds)));
  return { at: moving ?? (() => centre), moves: moving !== null, bounds, corners };
}

const nowhereElse = (point: Vec3): PivotPlace => ({ at: () => point, moves: false, bounds: null, corners: [] });

const pointsOf = (outline: ArrayLike<number>): Vec3[] =>
  Array.from({ length: outline.length / 3 }, (_, i) => [outline[3 * i]!, outline[3 * i + 1]!, outline[3 * i + 2]!]);

/** What a move is about, as far as a plan that shows it must look elsewhere when it changes. */
export function subjectOf(body: MoveBody): string {
  if (body.kind === 'orbit') return JSON.stringify(body.pivot);
  return body.kind === 'ride' ? JSON.stringify(body.carrier) : '';
}

/** Eyes of a person who stands, metres. */
const EYES = 1.6;

/** Places that a move has by its document alone: which storey it belongs to, metres. */
export function placesOf(body: MoveBody): readonly { x: number; y: number; z: number }[] {
  const place = ([x, y, z]: Vec3) => ({ x, y, z });
  // A camera stands for the floor that a person with such eyes would stand on.
  const eyes = ([x, y, z]: Vec3) => ({ x, y: y - EYES, z });
  switch (body.kind) {
    case 'walk':
      return body.path.nodes;
    case 'glide': {
      // Of what comes down from above the storey is the one that it comes to.
      const lowest = Math.min(...body.path.nodes.map(({ y }) => y));
      return body.path.nodes.map(({ x, z }) => eyes([x, lowest, z]));
    }
    case 'orbit':
      return [place(body.pivot.point)];
    case 'travel':
      return body.poses.map(({ position }) => eyes(position));
    case 'ride':
      return body.carrier ? [place(body.carrier.centre)] : [];
    case 'follow':
      return [eyes(body.position)];
  }
}
