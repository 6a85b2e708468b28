import { cornerNormal, isOpposite, TRIANGLE, type TriangleSoup } from '../../geometry/index.ts';

/** An opening in what lies in one plane: the rectangle round it. */
export interface Hole {
  centre: [number, number, number];
  /** From the centre to the middles of two sides, metres: `u` is level. */
  u: [number, number, number];
  v: [number, number, number];
  normal: [number, number, number];
  /** Of the rectangle, square metres. */
  area: number;
}

/** Of more triangles no planes are made: that would take as much room as the site itself. */
const MOST_TRIANGLES = 400_000;
/** Planes with less in them have no openings that matter, square metres. */
const LEAST_PLANE = 0.5;
/** More planes are not looked through, those with most in them first. */
const MOST_PLANES = 600;
/** Faces nearer than this are in one plane, metres; so are normals by this part of their length. */
const STEP = 0.02;
const NORMAL_STEP = 1 / 60;
/** Side of the squares that a plane is looked at by, metres, and as many of them at most. */
const SQUARE = 0.05;
const MOST_SQUARES = 30_000;

interface Plane {
  normal: [number, number, number];
  area: number;
  /** Numbers of its triangles. */
  triangles: number[];
}

/** Openings in all planes of a soup that have much in them: windows and doors of walls, holes in ceilings and roofs. */
export function holesIn(soup: TriangleSoup): Hole[] {
  if (soup.length > MOST_TRIANGLES * TRIANGLE) return [];
  return planesOf(soup)
    .filter(({ area }) => area >= LEAST_PLANE)
    .sort((one, two) => two.area - one.area)
    .slice(0, MOST_PLANES)
    .flatMap((plane) => holesOf(plane, soup));
}

/** Triangles by plane, whichever side they face. */
function planesOf(soup: TriangleSoup): Plane[] {
  const planes = new Map<number, Plane>();
  const n = new Float64Array(3);
  for (let t = 0; t < soup.length / TRIANGLE; t += 1) {
    const o = t * TRIANGLE;
    cornerNormal(soup, o, o + 3, o + 6, n);
    const twice = Math.hypot(n[0]!, n[1]!, n[2]!);
    if (!(twice > 1e-6)) continue;
    const sign = (isOpposite(n) ? -1 : 1) / twice;
    const [x, y, z] = [n[0]! * sign, n[1]! * sign, n[2]! * sign];
    const offset = x * soup[o]! + y * soup[o + 1]! + z * soup[o + 2]!;
    const cell = (value: number) => Math.floor(value / NORMAL_STEP + 0.37) + 64;
    const key = ((cell(x) * 128 + cell(y)) * 128 + cell(z)) * 2 ** 24 + Math.floor(offset / STEP + 0.37) + 2 ** 23;
    let plane = planes.get(key);
    if (!plane) planes.set(key, (plane = { normal: [x, y, z], area: 0, triangles: [] }));
    plane.area += twice / 2;
    plane.triangles.push(t);
  }
  return [...planes.values()];
}

function holesOf({ normal, triangles }: Plane, soup: TriangleSoup): Hole[] {
  const upright = Math.abs(normal[1]) < 0.3;
  const [u, v] = axesOf(normal);
  const along = (axis: readonly number[], o: number) => alongAxis(axis, soup, o);
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  const corners = { u: [] as number[], v: [] as number[] };
  for (const t of triangles)
    for (let o = t * TRIANGLE; o < (t + 1) * TRIANGLE; o += 3) {
      const [a, b] = [along(u, o), along(v, o)];
      [u0, u1, v0, v1] = [Math.min(u0, a), Math.max(u1, a), Math.min(v0, b), Math.max(v1, b)];
      corners.u.push(a);
      corners.v.push(b);
    }
  const side = Math.max(SQUARE, Math.sqrt(((u1 - u0) * (v1 - v0)) / MOST_SQUARES));
  const [width, height] = [Math.ceil((u1 - u0) / side), Math.ceil((v1 - v0) / side)];
  if (width < 4 || height < 4) return [];
  const full = new Uint8Array(width * height);
  for (const t of triangles) {
    const o = t * TRIANGLE;
    const corner = (k: number): [number, number] => [
      (along(u, o + 3 * k) - u0) / side - 0.5,
      (along(v, o + 3 * k) - v0) / side - 0.5,
    ];
    fill(full, width, height, corner(0), corner(1), corner(2));
  }
  const plane = along(normal, triangles[0]! * TRIANGLE);
  return gapsOf(full, width, height, upright).map(([x0, y0, x1, y1]): Hole => {
    const [left, right] = [edgeAt(u0 + side * x0, corners.u, side, -1), edgeAt(u0 + side * x1, corners.u, side, 1)];
    const [low, high] = [edgeAt(v0 + side * y0, corners.v, side, -1), edgeAt(v0 + side * y1, corners.v, side, 1)];
    const [a, b, p, q] = [(left + right) / 2, (low + high) / 2, (right - left) / 2, (high - low) / 2];
    const at = (k: number) => normal[k]! * plane + u[k]! * a + v[k]! * b;
    return {
      centre: [at(0), at(1), at(2)],
      u: [u[0]! * p, u[1]! * p, u[2]! * p],
      v: [v[0]! * q, v[1]! * q, v[2]! * q],
      normal,
      area: 4 * p * q,
    };
  });
}

/**
 * Where an opening ends that ends about there: at the farthest corner of a face that may be its edge; where there is
 * none, a square farther out, so that all of it is within.
 */
function edgeAt(about: number, corners: readonly number[], side: number, outward: 1 | -1): number {
  let edge = Number.NaN;
  for (const corner of corners)
    if (Math.abs(corner - about) < 0.8 * side && !(outward * (edge - corner) > 0)) edge = corner;
  return Number.isNaN(edge) ? about + outward * side : edge;
}

const alongAxis = (axis: readonly number[], soup: TriangleSoup, o: number) =>
  axis[0]! * soup[o]! + axis[1]! * soup[o + 1]! + axis[2]! * soup[o + 2]!;

/** Two axes of a plane, the first of them level. */
function axesOf([x, y, z]: readonly [number, number, number]): [number[], number[]] {
  const level = Math.hypot(x, z);
  const u = level < 1e-3 ? [1, 0, 0] : [z / level, 0, -x / level];
  const v = [y * u[2]! - z * u[1]!, z * u[0]! - x * u[2]!, x * u[1]! - y * u[0]!];
  return [u, v];
}

type Corner = readonly [number, number];

/** Marks the squares whose middles a triangle covers, in squares. */
function fill(full: Uint8Array, width: number, height: number, a: Corner, b: Corner, c: Corner): void {
  const rows = [a[1], b[1], c[1]];
  const first = Math.max(0, Math.ceil(Math.min(...rows) - 1e-6));
  const last = Math.min(height - 1, Math.floor(Math.max(...rows) + 1e-6));
  for (let y = first; y <= last; y += 1) {
    let [from, to] = [Infinity, -Infinity];
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const [low, high] = p[1] < q[1] ? [p, q] : [q, p];
      if (y < low[1] - 1e-6 || y > high[1] + 1e-6) continue;
      const part = high[1] - low[1] < 1e-9 ? 0 : Math.min(1, Math.max(0, (y - low[1]) / (high[1] - low[1])));
      const x = low[0] + part * (high[0] - low[0]);
      [from, to] = [Math.min(from, x), Math.max(to, x)];
      if (high[1] - low[1] < 1e-9) [from, to] = [Math.min(from, high[0]), Math.max(to, high[0])];
    }
    const start = Math.max(0, Math.ceil(from - 1e-6));
    const end = Math.min(width - 1, Math.floor(to + 1e-6));
    if (end >= start) full.fill(1, y * width + start, y * width + end + 1);
  }
}

/**
 * Rectangles [x0, y0, x1, y1) round what is empty and does not go on at the sides.
 * @param upright what goes on above or below is bounded there by a floor or a ceiling
 */
function gapsOf(full: Uint8Array, width: number, height: number, upright: boolean): [number, number, number, number][] {
  const gaps: [number, number, number, number][] = [];
  const stack: number[] = [];
  const take = (at: number) => {
    if (full[at]) return;
    full[at] = 1;
    stack.push(at);
  };
  for (let start = 0; start < full.length; start += 1) {
    if (full[start]) continue;
    let [x0, y0, x1, y1] = [width, height, -1, -1];
    full[start] = 1;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop()!;
      const x = at % width;
      const y = (at - x) / width;
      x0 = Math.min(x0, x);
      y0 = Math.min(y0, y);
      x1 = Math.max(x1, x);
      y1 = Math.max(y1, y);
      if (x > 0) take(at - 1);
      if (x + 1 < width) take(at + 1);
      if (y > 0) take(at - width);
      if (y + 1 < height) take(at + width);
    }
    const beside = x0 === 0 || x1 === width - 1;
    const above = y0 === 0 || y1 === height - 1;
    if (!beside && (upright || !above)) gaps.push([x0, y0, x1 + 1, y1 + 1]);
  }
  return gaps;
}
