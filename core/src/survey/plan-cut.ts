import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import { OutlineCollector } from './outline.ts';

/** Height of the cut above the storey's floor, metres (common practice in plan drawing, no source). */
export const CUT_HEIGHT = 1.2;
/** How far below the floor things still show (the steps up to it), metres. */
const SHOW_BELOW = 0.75;
/** Just off round heights: a cut exactly along modelled edges is not defined, metres. */
export const OFF_ROUND = 0.00037;
/** Points nearer than this are the same point, metres. */
const WELD = 0.001;

/** Line work of one storey. All numbers in metres, in plan (x, z), rounded to the millimetre. */
export interface PlanCut {
  /** Closed outlines of what the cut goes through: filled, even-odd. */
  cut: number[][];
  /** Cut lines that do not close, four numbers a line. */
  openCut: number[];
  /** Cut glass, four numbers a line. */
  glass: number[];
  /** Edges of what lies below the cut, seen from above, four numbers a line. */
  below: number[];
}

/**
 * Cuts the model {@link CUT_HEIGHT} above a storey.
 * @param seeThrough one flag a triangle: glass is drawn as a thin line and never filled
 */
export function planCut(soup: TriangleSoup, seeThrough: Uint8Array, elevation: number): PlanCut {
  const height = elevation + CUT_HEIGHT + OFF_ROUND;
  return { ...cutAt(soup, seeThrough, height), below: edgesBelow(soup, elevation, height) };
}

/** What a level plane goes through. `height` in the model's metres, off round numbers (see {@link OFF_ROUND}). */
export function cutAt(soup: TriangleSoup, seeThrough: Uint8Array, height: number): Omit<PlanCut, 'below'> {
  const solid: number[] = [];
  const glass: number[] = [];
  const line = new Float64Array(4);
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    if (!cutTriangle(soup, i * TRIANGLE, height, line)) continue;
    (seeThrough[i] ? glass : solid).push(round(line[0]!), round(line[1]!), round(line[2]!), round(line[3]!));
  }
  const { loops, rest } = joinLoops(solid);
  return { cut: loops, openCut: rest, glass };
}

/** All that a cut goes through as loose segments, four numbers each: lines, glass, outlines. */
export function segmentsOf({ cut, openCut, glass }: Omit<PlanCut, 'below'>): number[] {
  const out: number[] = [...openCut, ...glass];
  for (const loop of cut)
    for (let i = 0; i < loop.length; i += 2) {
      const next = (i + 2) % loop.length;
      out.push(loop[i]!, loop[i + 1]!, loop[next]!, loop[next + 1]!);
    }
  return out;
}

const round = (value: number) => Math.round(value / WELD) * WELD;
const tidy = (value: number) => Math.round(value * 1000) / 1000;
const key = (x: number, z: number) => `${Math.round(x / WELD)},${Math.round(z / WELD)}`;

/** Writes the line where a plane cuts a triangle; false where it does not. */
export function cutTriangle(t: TriangleSoup, o: number, height: number, out: Float64Array): boolean {
  let found = 0;
  for (let e = 0; e < 3; e += 1) {
    const a = o + e * 3;
    const b = o + ((e + 1) % 3) * 3;
    const ya = t[a + 1]! - height;
    const yb = t[b + 1]! - height;
    if (ya < 0 === yb < 0) continue;
    const part = ya / (ya - yb);
    out[found * 2] = t[a]! + (t[b]! - t[a]!) * part;
    out[found * 2 + 1] = t[a + 2]! + (t[b + 2]! - t[a + 2]!) * part;
    found += 1;
  }
  return found === 2 && Math.hypot(out[2]! - out[0]!, out[3]! - out[1]!) > WELD;
}

/** Joins loose lines end to end. What comes back to its start is a loop; the rest stays lines. */
function joinLoops(lines: readonly number[]): { loops: number[][]; rest: number[] } {
  const byPoint = new Map<string, number[]>();
  const count = lines.length / 4;
  for (let i = 0; i < count; i += 1)
    for (const end of [0, 2]) {
      const k = key(lines[4 * i + end]!, lines[4 * i + end + 1]!);
      const list = byPoint.get(k);
      if (list) list.push(i);
      else byPoint.set(k, [i]);
    }
  const used = new Uint8Array(count);
  const loops: number[][] = [];
  const rest: number[] = [];
  for (let start = 0; start < count; start += 1) {
    if (used[start]) continue;
    used[start] = 1;
    const chain = [start];
    const points = [lines[4 * start]!, lines[4 * start + 1]!, lines[4 * start + 2]!, lines[4 * start + 3]!];
    const home = key(points[0]!, points[1]!);
    for (;;) {
      const here = key(points.at(-2)!, points.at(-1)!);
      if (here === home) break;
      const next = byPoint.get(here)!.find((i) => !used[i]);
      if (next === undefined) break;
      used[next] = 1;
      chain.push(next);
      const forward = key(lines[4 * next]!, lines[4 * next + 1]!) === here;
      points.push(lines[4 * next + (forward ? 2 : 0)]!, lines[4 * next + (forward ? 3 : 1)]!);
    }
    if (key(points.at(-2)!, points.at(-1)!) === home && points.length >= 8) loops.push(straighten(points));
    else for (const i of chain) for (let k = 0; k < 4; k += 1) rest.push(tidy(lines[4 * i + k]!));
  }
  return { loops, rest };
}

/** Drops points in the middle of straight stretches (a wall is cut once per triangle). */
function straighten(points: readonly number[]): number[] {
  const out: number[] = [];
  const count = points.length / 2 - 1;
  for (let i = 0; i < count; i += 1) {
    const before = (i + count - 1) % count;
    const [ax, az, bx, bz, cx, cz] = [
      points[2 * before]!,
      points[2 * before + 1]!,
      points[2 * i]!,
      points[2 * i + 1]!,
      points[2 * i + 2]!,
      points[2 * i + 3]!,
    ];
    const bend = Math.abs((bx - ax) * (cz - az) - (bz - az) * (cx - ax));
    if (bend > 1e-4 * Math.max(Math.hypot(cx - ax, cz - az), WELD)) out.push(tidy(bx), tidy(bz));
  }
  return out;
}

/** Outlines of everything level between just below the floor and the cut: table tops, treads, seats, floor edges. */
function edgesBelow(soup: TriangleSoup, elevation: number, height: number): number[] {
  const normal = new Float64Array(3);
  const outline = new OutlineCollector();
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    const o = i * TRIANGLE;
    const top = Math.max(soup[o + 1]!, soup[o + 4]!, soup[o + 7]!);
    if (top > height || top < elevation - SHOW_BELOW) continue;
    triangleNormal(soup, i, normal);
    if (normal[1]! < 0.9 * Math.hypot(normal[0]!, normal[1]!, normal[2]!)) continue;
    for (let e = 0; e < 3; e += 1) {
      const a = o + e * 3;
      const b = o + ((e + 1) % 3) * 3;
      outline.add(soup[a]!, soup[a + 2]!, soup[b]!, soup[b + 2]!, (soup[a + 1]! + soup[b + 1]!) / 2);
    }
  }
  return outline.outline().map(tidy);
}
