import { SEEN_THROUGH } from '../format/index.ts';
import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import { crownsOf } from './crowns.ts';
import { OutlineCollector } from './outline.ts';
import { levelFaces } from './level-faces.ts';
import { joinLoops, sidesOf, solidsOf, THICKEST, tidy, WELD } from './plan-loops.ts';

/** Height of the cut above the storey's floor, metres (common practice in plan drawing, no source). */
export const CUT_HEIGHT = 1.2;
/** How far below the floor things still show (the steps up to it), metres. */
const SHOW_BELOW = 0.75;
/** Just off round heights: a cut exactly along modelled edges is not defined, metres. */
export const OFF_ROUND = 0.00037;

/** Line work of one storey. All numbers in metres, in plan (x, z), rounded to the millimetre. */
export interface PlanCut {
  /** What the cut goes through and what is filled: an outline each, and the outlines of the holes in it. */
  cut: number[][][];
  /** Cut lines that close nothing solid: sheets, and rings of them. Four numbers a line. */
  openCut: number[];
  /** Cut glass, four numbers a line. */
  glass: number[];
  /** Edges of what lies below the cut, seen from above, four numbers a line. */
  below: number[];
}

/**
 * Cuts the model above a storey.
 * @param seeThrough one flag a triangle (`SEEN_THROUGH`): glass is drawn as a thin line and never filled, what is cut out
 *   of pictures as its outline
 * @param above height of the cut over the storey's floor, metres
 * @param thickest what is cut and thicker is drawn as lines, metres
 */
export function planCut(
  soup: TriangleSoup,
  seeThrough: Uint8Array,
  elevation: number,
  { above = CUT_HEIGHT, thickest = THICKEST } = {},
): PlanCut {
  const height = elevation + above + OFF_ROUND * Math.min(1, above);
  return { ...cutAt(soup, seeThrough, height, thickest), below: edgesBelow(soup, elevation, height) };
}

/** What a level plane goes through. `height` in the model's metres, off round numbers (see {@link OFF_ROUND}). */
export function cutAt(
  soup: TriangleSoup,
  seeThrough: Uint8Array,
  height: number,
  thickest = THICKEST,
): Omit<PlanCut, 'below'> {
  const solid: number[] = [];
  const glass: number[] = [];
  const cards: number[] = [];
  const line = new Float64Array(4);
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    if (!cutTriangle(soup, i * TRIANGLE, height, line)) continue;
    const [ax, az, bx, bz] = [round(line[0]!), round(line[1]!), round(line[2]!), round(line[3]!)];
    // What begins and ends in one point joins nothing; however short, anything else does.
    const kind = seeThrough[i];
    const lines = kind === SEEN_THROUGH.cutOut ? cards : kind ? glass : solid;
    if (ax !== bx || az !== bz) lines.push(ax, az, bx, bz);
  }
  const { loops, rest } = joinLoops(solid);
  const { filled, rings } = solidsOf(loops, thickest);
  return { cut: filled, openCut: [...rest, ...rings.flatMap(sidesOf), ...crownsOf(cards)], glass };
}

/** All that a cut goes through as loose segments, four numbers each: lines, glass, outlines. */
export function segmentsOf({ cut, openCut, glass }: Omit<PlanCut, 'below'>): number[] {
  const out: number[] = [...openCut, ...glass];
  for (const outline of cut) for (const loop of outline) out.push(...sidesOf(loop));
  return out;
}

const round = (value: number) => Math.round(value / WELD) * WELD;

/**
 * Writes the line where a plane cuts a triangle, in the direction in which the lines round a body enclose a positive
 * area; false where it does not cut it.
 */
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
  const [dx, dz] = [out[2]! - out[0]!, out[3]! - out[1]!];
  if (found !== 2 || (dx === 0 && dz === 0)) return false;
  triangleNormal(t, o / TRIANGLE, facing);
  if (dx * facing[2]! - dz * facing[0]! > 0) out.set([out[2]!, out[3]!, out[0]!, out[1]!]);
  return true;
}
const facing = new Float64Array(3);

/** Outlines of everything level between just below the floor and the cut: table tops, treads, seats, floor edges. */
function edgesBelow(soup: TriangleSoup, elevation: number, height: number): number[] {
  const outline = new OutlineCollector();
  const level = levelFaces(soup, elevation - SHOW_BELOW, height);
  for (let i = 0; i < level.length; i += 1) {
    if (!level[i]) continue;
    const o = i * TRIANGLE;
    for (let e = 0; e < 3; e += 1) {
      const a = o + e * 3;
      const b = o + ((e + 1) % 3) * 3;
      outline.add(soup[a]!, soup[a + 2]!, soup[b]!, soup[b + 2]!, (soup[a + 1]! + soup[b + 1]!) / 2);
    }
  }
  return outline.outline().map(tidy);
}
