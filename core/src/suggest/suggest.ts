import type { Bounds, Lens, StillCamera, Vec3 } from '../document/index.ts';
import { diagonalOf, joinBounds, largestOf, nearestTurn, orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import {
  FOR_PEOPLE,
  joinExtents,
  OUTSIDE,
  type Footing,
  type Relief,
  type Room,
  type Survey,
} from '../survey/index.ts';
import { LookRound } from './look-round.ts';
import { aroundIt } from './outside.ts';
import { overLand } from './over-land.ts';
import { isClear, placesIn } from './places.ts';
import { isPlate } from './things.ts';
import { aheadOf, NEAREST, scoreOf, termsOf, type Terms, type Thing } from './terms.ts';

/** A view that somebody could keep. */
export interface Suggestion {
  camera: StillCamera;
  /** The room that it stands in, by its name; null outdoors. */
  room: string | null;
  /** Index of its storey. */
  storey: number | null;
  terms: Terms;
  /** 0…1. */
  score: number;
  /** How far the picture goes in, metres; null outdoors. */
  depth: number | null;
  /** What it is about, by name. */
  subject: string | null;
  /** Of a landscape: from a place in it, or from above. */
  land?: 'ground' | 'above';
}

export interface SuggestSite {
  survey: Survey;
  footing: Footing;
  bounds: Bounds;
  /** What pictures can be about. */
  things: readonly Thing[];
  /** Direction to the sun; null where there is none. */
  sun: Vec3 | null;
}

export interface SuggestWish {
  lens: Lens;
  /** Width over height of the picture. */
  aspect: number;
  /** metres */
  eyeHeight: number;
}

/** Rooms smaller than this are no subject of a picture, square metres. */
export const SMALLEST_ROOM = 6;
const MOST = 10;
const MOST_OUTSIDE = 2;
/** Of what stands in a landscape and has no rooms. */
const MOST_AROUND = 4;
/** What stands in a landscape is no wider than this part of it. */
const STANDS_IN = 0.5;
/** And rises over the land by this, metres: what does not is a piece of the land. */
const STANDS_OUT = 2;
/** Ways to look from a place. */
const WAYS = 24;
/** Two views of a room differ by so much, metres or radians. */
const APART = { metres: 2, radians: Math.PI / 3 } as const;
/** A thing of a room: its sizes, metres, and how far over the floor it may be. */
const THING = { least: 0.25, most: 4.5, over: 1.3 } as const;
/** Over the highest floor, about, metres. */
const ROOF = 4;

/**
 * Up to ten views that are worth keeping, best first: one of every room, some from outside, then second ones. Nobody
 * stands in furniture, and nothing nearer than {@link NEAREST} covers the middle of a picture.
 */
export function suggestViews(site: SuggestSite, wish: SuggestWish): Suggestion[] {
  const look = new LookRound(site.footing);
  const size = largestOf(site.bounds);
  const ofRooms = site.survey.storeys.flatMap(({ rooms, name }, storey) =>
    name === OUTSIDE
      ? []
      : rooms.filter(({ area }) => area >= SMALLEST_ROOM).map((room) => inRoom(look, site, wish, room, storey)),
  );
  const first = ofRooms.flatMap((views) => views.slice(0, 1)).sort(byScore);
  const second = ofRooms.flatMap((views) => views.slice(1)).sort(byScore);
  const { relief } = site.survey;
  const ofTheLand = ofRooms.length === 0 && relief ? ofLand({ ...site, ...wish, relief }) : [];
  const house = ofRooms.length > 0 ? houseOf(site) : relief ? standsIn(site, relief) : null;
  if (relief && !house) return ofTheLand;
  const people = size >= FOR_PEOPLE && site.survey.storeys.length > 0;
  const outside = aroundIt(look, {
    ...wish,
    bounds: house ?? site.bounds,
    sun: site.sun,
    eyeHeight: people && house ? wish.eyeHeight : null,
    footing: site.footing,
  })
    .map(({ camera, terms }): Suggestion => ({
      camera,
      room: null,
      storey: null,
      terms,
      score: scoreOf(terms),
      depth: null,
      subject: null,
    }))
    .sort(byScore);
  const shown = ofRooms.length > 0 ? MOST_OUTSIDE : ofTheLand.length > 0 ? MOST_AROUND : MOST;
  return [...first, ...outside.slice(0, shown), ...second, ...ofTheLand].slice(0, MOST);
}

/** Views of a landscape: two from above to begin with, and then from its best places. */
function ofLand(land: Parameters<typeof overLand>[0]): Suggestion[] {
  const views = overLand(land).map(({ from, ...view }): Suggestion => ({
    ...view,
    land: from,
    room: null,
    storey: null,
    score: scoreOf(view.terms),
    subject: null,
  }));
  const [above, ground] = (['above', 'ground'] as const).map((from) =>
    views.filter(({ land: one }) => one === from).sort(byScore),
  ) as [Suggestion[], Suggestion[]];
  return [...above.slice(0, MOST_OUTSIDE), ...ground, ...above.slice(MOST_OUTSIDE)].slice(0, MOST);
}

const byScore = (a: Suggestion, b: Suggestion) => b.score - a.score;

/** The best views of a room, at most two that differ. */
function inRoom(
  look: LookRound,
  { footing, things }: SuggestSite,
  wish: SuggestWish,
  room: Room,
  storey: number,
): Suggestion[] {
  const { lens, aspect, eyeHeight } = wish;
  const here = things.filter((thing) => belongs(thing, room));
  const { left, right } = new Projection(throughLens(lens), aspect).edges;
  const half = (right - left) / 2;
  const found: Suggestion[] = [];
  for (const [x, z] of placesIn(look, footing, room)) {
    const floor = room.at[1];
    if (!isClear(look, footing, [x, floor, z], eyeHeight)) continue;
    const eye: Vec3 = [x, floor + eyeHeight, z];
    const fan = look.fan(eye);
    for (let way = 0; way < WAYS; way += 1) {
      const pan = nearestTurn((2 * Math.PI * way) / WAYS);
      if (aheadOf(fan, pan) < NEAREST) continue;
      const pose = { position: eye, orientation: orientationOf({ pan, tilt: 0, roll: 0 }) };
      const projection = new Projection(throughLens(lens), aspect, eye, pose.orientation);
      const { terms, depth, subject } = termsOf(fan, pan, half, projection, here);
      found.push({ camera: { pose, lens }, room: room.name, storey, terms, score: scoreOf(terms), depth, subject });
    }
  }
  found.sort(byScore);
  const [best] = found;
  if (!best) return [];
  const other = found.find((view) => differs(best, view));
  return other ? [best, other] : [best];
}

function differs(a: Suggestion, b: Suggestion): boolean {
  const [p, q] = [a.camera.pose, b.camera.pose];
  const away = Math.hypot(p.position[0] - q.position[0], p.position[2] - q.position[2]);
  const dot = p.orientation.reduce((sum, value, k) => sum + value * q.orientation[k]!, 0);
  return away > APART.metres || 2 * Math.acos(Math.min(1, Math.abs(dot))) > APART.radians;
}

/** Is a thing one of a room's: in it, neither a wall nor a crumb? */
function belongs({ bounds }: Thing, { at, places }: Room): boolean {
  const { min, max } = bounds;
  const largest = largestOf(bounds);
  if (largest < THING.least || largest > THING.most || isPlate(bounds)) return false;
  if (min[1] < at[1] - 0.1 || min[1] > at[1] + THING.over) return false;
  const [x, z] = [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2];
  for (let i = 0; i < places.length; i += 2) if (Math.hypot(places[i]! - x, places[i + 1]! - z) < 0.8) return true;
  return false;
}

/** What stands in a landscape and has no rooms that are known: all of it where it stands together, else the largest. */
function standsIn({ things, bounds }: SuggestSite, relief: Relief): Bounds | null {
  const most = STANDS_IN * planWidthOf(bounds);
  const built = things
    .map((thing) => thing.bounds)
    .filter((one) => planWidthOf(one) <= most && one.max[1] - highestIn(relief, one) >= STANDS_OUT)
    .sort((a, b) => diagonalOf(b) - diagonalOf(a));
  const all = joinBounds(built);
  return all && planWidthOf(all) <= most ? all : (built[0] ?? null);
}

/** The highest land in the plan of something, metres; −Infinity where there is none. */
function highestIn({ x0, z0, cell, columns, rows, heights }: Relief, { min, max }: Bounds): number {
  const within = (value: number, last: number) => Math.max(0, Math.min(last, Math.round(value / cell)));
  let highest = -Infinity;
  for (let row = within(min[2] - z0, rows - 1); row <= within(max[2] - z0, rows - 1); row += 1)
    for (let column = within(min[0] - x0, columns - 1); column <= within(max[0] - x0, columns - 1); column += 1)
      highest = Math.max(highest, heights[row * columns + column] ?? -Infinity);
  return highest;
}

const planWidthOf = ({ min, max }: Bounds): number => Math.max(max[0] - min[0], max[2] - min[2]);

/** The house of a site, roof and all, about. */
function houseOf({ survey, bounds }: SuggestSite): Bounds {
  const inside = survey.storeys.filter(({ name }) => name !== OUTSIDE);
  const [x0, z0, x1, z1] = joinExtents(inside.map(({ extent }) => extent))!;
  const heights = inside.map(({ elevation }) => elevation);
  return {
    min: [x0, Math.min(...heights), z0],
    max: [x1, Math.min(bounds.max[1], Math.max(...heights) + ROOF), z1],
  };
}
