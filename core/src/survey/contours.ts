import { TRIANGLE, boundsOf, type TriangleSoup } from '../geometry/index.ts';
import { cutAt, OFF_ROUND, segmentsOf } from './plan-cut.ts';

/** Intervals that maps have, metres (common practice, no source). */
const INTERVALS = [0.1, 0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200];
/** About so many lines a landscape. */
const MOST_LINES = 24;
/** Every so many lines one is drawn stronger and bears its height. */
const INDEX = 5;

/** A line of one height. */
export interface Contour {
  height: number;
  /** Drawn stronger, with its height. */
  index: boolean;
  /** Four numbers a piece: x1, z1, x2, z2; metres. */
  lines: number[];
}

/** The contour lines of a landscape, at an interval by its heights; none where it is level. */
export function contoursOf(land: TriangleSoup): Contour[] {
  if (land.length === 0) return [];
  const { min, max } = boundsOf(land);
  const range = max[1] - min[1];
  const interval = INTERVALS.find((step) => range / step <= MOST_LINES) ?? INTERVALS.at(-1)!;
  if (range < interval) return [];
  const opaque = new Uint8Array(land.length / TRIANGLE);
  const contours: Contour[] = [];
  for (let n = Math.ceil(min[1] / interval); n * interval <= max[1]; n += 1) {
    const height = Math.round(n * interval * 1000) / 1000;
    const lines = segmentsOf(cutAt(land, opaque, height + OFF_ROUND));
    if (lines.length > 0) contours.push({ height, index: n % INDEX === 0, lines });
  }
  return contours;
}
