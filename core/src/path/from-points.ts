import { MOST_NODES, type Path, type PathNode } from '../document/index.ts';
import { mainPoints } from './main-points.ts';

/** A line that others drew is followed this closely, metres; more loosely where it has too many points. */
const CLOSE = 0.03;
const LOOSER = 1.6;
/** What turns more than this between legs longer than that is a corner: radians, metres. */
const CORNER = 0.45;
const LEG = 0.4;

/**
 * A smooth line swings out where a long leg meets a turn: a long leg is held at this place from its ends, metres; of a line
 * that is followed more closely, shorter legs, nearer to their ends.
 */
const LONG = 1.5;
const HELD = 0.7;

interface FromPoints {
  closed: boolean;
  /** The line is followed this closely, metres, unless it has too many points. */
  close?: number;
  /** All of it is smooth: nobody walks round corners on the spot. */
  smooth?: boolean;
  /** Its heights are its own, and count. */
  rises?: boolean;
  newId: () => string;
  /** Height of the surface at a place, near a height where that is known, metres; null where there is none. */
  surface: (x: number, z: number, y: number | null) => number | null;
}

type Point = readonly [x: number, y: number | null, z: number];

/** A path along a line of points, with as few nodes as follow it, metres. */
export const pathFromPoints = (points: readonly Point[], options: FromPoints): Path => followed(points, options).path;

/** The same, and which of the points each node is; null for a node that is between two of them. */
export function followed(
  points: readonly Point[],
  { closed, close: first = CLOSE, smooth = false, rises = false, newId, surface }: FromPoints,
): { path: Path; pointOf: (number | null)[] } {
  let close = first;
  let main = mainPoints(points, close, rises);
  while (main.length > MOST_NODES) main = mainPoints(points, (close *= LOOSER), rises);
  let kept = main.map((i): Followed => ({ at: points[i]!, point: i }));
  if (smooth) kept = heldLegs(kept, Math.min(1, first / CLOSE));
  const nodes = kept.map(({ at }, i): PathNode => {
    const [x, y, z] = at;
    const before = (kept[i - 1] ?? (closed ? kept.at(-1) : undefined))?.at;
    const after = (kept[i + 1] ?? (closed ? kept[0] : undefined))?.at;
    const height = surface(x, z, y);
    return {
      id: newId(),
      x,
      y: height ?? y ?? 0,
      z,
      ...(height !== null && { surface: true as const }),
      kind: !smooth && before && after && isCorner(before, at, after) ? 'corner' : 'smooth',
      radius: 0.5,
    };
  });
  return { path: { nodes, closed: closed && nodes.length > 2 }, pointOf: kept.map(({ point }) => point) };
}

interface Followed {
  at: Point;
  /** Its number in the line; null where it is none of its points. */
  point: number | null;
}

/** Two more points on every long leg, near its ends. */
function heldLegs(points: readonly Followed[], scale: number): Followed[] {
  return points.flatMap((from, i) => {
    const to = points[i + 1];
    if (!to) return [from];
    const [a, b] = [from.at, to.at];
    const length = Math.hypot(b[0] - a[0], b[2] - a[2]);
    if (length < LONG * scale) return [from];
    const between = (metres: number): Followed => {
      const part = metres / length;
      const y = a[1] === null || b[1] === null ? null : a[1] + (b[1] - a[1]) * part;
      return { at: [a[0] + (b[0] - a[0]) * part, y, a[2] + (b[2] - a[2]) * part], point: null };
    };
    return [from, between(HELD * scale), between(length - HELD * scale)];
  });
}

function isCorner([ax, , az]: Point, [x, , z]: Point, [bx, , bz]: Point): boolean {
  const [ux, uz, vx, vz] = [x - ax, z - az, bx - x, bz - z];
  const turn = Math.abs(Math.atan2(ux * vz - uz * vx, ux * vx + uz * vz));
  return turn > CORNER && Math.min(Math.hypot(ux, uz), Math.hypot(vx, vz)) > LEG;
}

/** A line farther from a site than this is brought to its middle, metres. */
const FAR = 60;

/** Where a line comes to lie on a site, metres. */
export interface LaidLine {
  points: Point[];
  /** It lay far away, or nowhere, and has been brought to the middle of the site. */
  moved: boolean;
}

/**
 * Lays a line that others drew onto a site.
 * @param metresPerUnit of the drawing @param place where a place of the drawing (to the right, up, down the plan) is on
 * the site; null where nobody knows
 * @param extent of the site, [minX, minZ, maxX, maxZ]
 */
export function laidOn(
  points: readonly Point[],
  metresPerUnit: number,
  place: ((point: [number, number, number]) => readonly [number, number, number]) | null,
  [minX, minZ, maxX, maxZ]: readonly [number, number, number, number],
): LaidLine {
  const laid = points.map(([x, y, z]): Point => {
    const scaled: [number, number, number] = [x * metresPerUnit, (y ?? 0) * metresPerUnit, z * metresPerUnit];
    const [px, py, pz] = place?.(scaled) ?? scaled;
    return [px, y === null ? null : py, pz];
  });
  const middle = (k: 0 | 2) => {
    const values = laid.map((point) => point[k]);
    return (values.reduce((a, b) => Math.min(a, b), Infinity) + values.reduce((a, b) => Math.max(a, b), -Infinity)) / 2;
  };
  const [x, z] = [middle(0), middle(2)];
  const near = x > minX - FAR && x < maxX + FAR && z > minZ - FAR && z < maxZ + FAR;
  if (place && near) return { points: laid, moved: false };
  const [dx, dz] = [(minX + maxX) / 2 - x, (minZ + maxZ) / 2 - z];
  // Its heights meant another place.
  return { points: laid.map(([px, , pz]) => [px + dx, null, pz + dz]), moved: true };
}

/** Length of a line, in its own unit. */
export function lengthOfPoints(points: readonly Point[], closed: boolean): number {
  const all = closed ? [...points, points[0]!] : points;
  return all.slice(1).reduce((sum, [x, , z], i) => sum + Math.hypot(x - all[i]![0], z - all[i]![2]), 0);
}
