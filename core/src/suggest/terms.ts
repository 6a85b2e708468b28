import type { Bounds, Vec3 } from '../document/index.ts';
import { diagonalOf, middle, nearestTurn, toRadians } from '../geometry/index.ts';
import type { Projection } from '../optics/index.ts';
import { at, AZIMUTHS, FAR, LEVEL_ROWS, panOf, TILTS, type Fan } from './look-round.ts';

/** What makes a standing point good; each 0…1. */
export type Term = 'depth' | 'two sides' | 'light' | 'subject' | 'room before it';
export type Terms = Record<Term, number>;

/** How much each counts. */
export const WEIGHTS: Terms = { depth: 0.3, 'two sides': 0.2, light: 0.2, subject: 0.2, 'room before it': 0.1 };

export const scoreOf = (terms: Terms): number =>
  (Object.keys(WEIGHTS) as Term[]).reduce((sum, term) => sum + WEIGHTS[term] * terms[term], 0);

/** A picture that is as deep as this is deep, metres. */
const DEEP = 8;
/** Nothing before the middle of the picture is nearer than this, metres. */
export const NEAREST = 1.2;
const ROOMY = 3;
/** The middle of the picture, radians to each side. */
const AHEAD = toRadians(18);
/** A part of the picture that looks out: too little is dull, too much burns out. */
const WINDOW = { none: 0.01, good: 0.08, much: 0.35, all: 0.7 } as const;
/** A second side that fills so much of the picture shows. */
const SECOND = 0.22;
/** Sides differ by more than this, radians. */
const OTHER_SIDE = toRadians(25);
/** The part of the picture that a subject fills: lost, good, too much. */
const FILLS = { lost: 0.05, good: 0.14, much: 0.55, all: 0.95 } as const;

/** Directions of a fan within an angle to both sides of a pan. */
export function within(pan: number, half: number, rows: readonly number[]): number[] {
  const found: number[] = [];
  for (let azimuth = 0; azimuth < AZIMUTHS; azimuth += 1)
    if (Math.abs(nearestTurn(panOf(azimuth) - pan)) <= half) found.push(...rows.map((row) => at(azimuth, row)));
  return found;
}

/** 0 up to `a`, 1 from `b` to `c`, falling to 0 at `d`. */
const between = (value: number, a: number, b: number, c: number, d: number): number =>
  Math.max(0, Math.min(1, (value - a) / (b - a), (d - value) / (d - c)));

const ALL_ROWS = TILTS.map((_, row) => row);

/** How near the nearest thing in the middle of the picture is, metres. */
export const aheadOf = (fan: Fan, pan: number): number =>
  Math.min(...within(pan, AHEAD, LEVEL_ROWS).map((o) => fan.distance[o]!));

/** How far in the picture goes: what a quarter of it is farther than. What lies behind a window is no depth of a room. */
export function depthOf(fan: Fan, pan: number, half: number): { metres: number; value: number } {
  const far = within(pan, half, LEVEL_ROWS)
    .filter((o) => fan.open[o] === 0)
    .map((o) => fan.distance[o]!)
    .sort((a, b) => b - a);
  const metres = far[Math.floor(far.length / 4)] ?? 0;
  return { metres, value: Math.min(1, metres / DEEP) };
}

/** Are two sides of a room to be seen? One wall seen straight on is a backdrop. */
export function sidesOf(fan: Fan, pan: number, half: number): number {
  const seen = within(pan, half, LEVEL_ROWS);
  const sides: { facing: number; count: number }[] = [];
  for (const o of seen) {
    const facing = fan.facing[o]!;
    if (Number.isNaN(facing)) continue;
    const known = sides.find((side) => Math.abs(nearestTurn(side.facing - facing)) < OTHER_SIDE);
    if (known) known.count += 1;
    else sides.push({ facing, count: 1 });
  }
  const [, second] = sides.sort((a, b) => b.count - a.count);
  return second ? Math.min(1, second.count / seen.length / SECOND) : 0;
}

/** Does light come into the picture, and not all of it? */
export function lightOf(fan: Fan, pan: number, half: number): number {
  const seen = within(pan, half, ALL_ROWS);
  const out = seen.filter((o) => fan.open[o] === 1).length / seen.length;
  return between(out, WINDOW.none, WINDOW.good, WINDOW.much, WINDOW.all);
}

/** Something that a picture can be about. */
export interface Thing {
  name: string;
  bounds: Bounds;
}

/** The thing that makes the best subject of a picture, and how good a one. @param projection of that picture */
export function subjectOf(
  fan: Fan,
  projection: Projection,
  things: readonly Thing[],
): { name: string; value: number } | null {
  let best: { name: string; value: number } | null = null;
  const largest = Math.max(...things.map(sizeOf), 0.001);
  for (const thing of things) {
    const value = shown(fan, projection, thing) * Math.sqrt(sizeOf(thing) / largest);
    if (value > (best?.value ?? 0)) best = { name: thing.name, value };
  }
  return best;
}

const sizeOf = ({ bounds }: Thing): number => diagonalOf(bounds);

/** How well a thing is seen: whole, of a good size, near the middle, with nothing before it. */
function shown({ from, distance }: Fan, projection: Projection, thing: Thing): number {
  const centre = middle(thing.bounds);
  const { x, y, depth } = projection.project(centre);
  const radius = sizeOf(thing) / 2;
  if (depth < radius || Math.abs(x) > 0.8 || Math.abs(y) > 0.9) return 0;
  const way = centre.map((value, k) => value - from[k]!) as Vec3;
  const length = Math.hypot(...way);
  const azimuth = Math.round((AZIMUTHS * Math.atan2(-way[0], -way[2])) / (2 * Math.PI));
  const tilt = Math.asin(way[1] / length);
  const row = TILTS.reduce((near, value, k) => (Math.abs(value - tilt) < Math.abs(TILTS[near]! - tilt) ? k : near), 0);
  if (distance[at(azimuth, row)]! < Math.min(length - 1.5 * radius, FAR)) return 0;
  const part = (2 * radius) / projection.footprint(depth).width;
  return between(part, FILLS.lost, FILLS.good, FILLS.much, FILLS.all) * (1 - 0.5 * Math.abs(x));
}

/** All terms of a direction. @param half half the angle across the picture, radians */
export function termsOf(
  fan: Fan,
  pan: number,
  half: number,
  projection: Projection,
  things: readonly Thing[],
): { terms: Terms; depth: number; subject: string | null } {
  const depth = depthOf(fan, pan, half);
  const subject = subjectOf(fan, projection, things);
  return {
    terms: {
      depth: depth.value,
      'two sides': sidesOf(fan, pan, half),
      light: lightOf(fan, pan, half),
      subject: subject?.value ?? 0,
      'room before it': Math.min(1, aheadOf(fan, pan) / ROOMY),
    },
    depth: depth.metres,
    subject: subject?.name ?? null,
  };
}
