import { TRIANGLE, type TriangleSoup } from '../../geometry/index.ts';

const BINS = 20;

/** Boxes of triangles, six numbers each: min, max. */
export function boxesOf(soup: TriangleSoup): Float32Array {
  const boxes = new Float32Array((6 * soup.length) / TRIANGLE);
  for (let i = 0; i < soup.length / TRIANGLE; i += 1)
    for (let k = 0; k < 3; k += 1) {
      const o = i * TRIANGLE + k;
      boxes[6 * i + k] = Math.min(soup[o]!, soup[o + 3]!, soup[o + 6]!);
      boxes[6 * i + 3 + k] = Math.max(soup[o]!, soup[o + 3]!, soup[o + 6]!);
    }
  return boxes;
}

/** Twice the centre of a triangle's box on an axis: good enough to sort by, and one multiplication less. */
export const centreOf = (boxes: Float32Array, triangle: number, axis: number) =>
  boxes[6 * triangle + axis]! + boxes[6 * triangle + 3 + axis]!;

/** The cheapest of the bin borders on all axes, or null when all centres are one point. */
export function bestSplit(
  boxes: Float32Array,
  order: Uint32Array,
  first: number,
  last: number,
): { axis: number; at: number } | null {
  let best: { axis: number; at: number } | null = null;
  let bestCost = Infinity;
  for (let axis = 0; axis < 3; axis += 1) {
    let low = Infinity;
    let high = -Infinity;
    for (let i = first; i < last; i += 1) {
      const c = centreOf(boxes, order[i]!, axis);
      if (c < low) low = c;
      if (c > high) high = c;
    }
    if (high - low < 1e-6) continue;
    const scale = BINS / (high - low);
    binCounts.fill(0);
    for (let bin = 0; bin < BINS; bin += 1) {
      binBoxes.fill(Infinity, 6 * bin, 6 * bin + 3);
      binBoxes.fill(-Infinity, 6 * bin + 3, 6 * bin + 6);
    }
    for (let i = first; i < last; i += 1) {
      const o = 6 * order[i]!;
      const bin = Math.min(BINS - 1, Math.floor((centreOf(boxes, order[i]!, axis) - low) * scale));
      binCounts[bin]! += 1;
      growBy(binBoxes, 6 * bin, boxes, o);
    }
    sweep.fill(Infinity, 0, 3);
    sweep.fill(-Infinity, 3, 6);
    let n = 0;
    for (let bin = BINS - 1; bin > 0; bin -= 1) {
      n += binCounts[bin]!;
      growBy(sweep, 0, binBoxes, 6 * bin);
      binCosts[bin] = n === 0 ? 0 : n * halfArea(sweep, 0);
    }
    sweep.fill(Infinity, 0, 3);
    sweep.fill(-Infinity, 3, 6);
    n = 0;
    for (let bin = 0; bin + 1 < BINS; bin += 1) {
      n += binCounts[bin]!;
      growBy(sweep, 0, binBoxes, 6 * bin);
      if (n === 0 || n === last - first) continue;
      const cost = n * halfArea(sweep, 0) + binCosts[bin + 1]!;
      if (cost < bestCost) {
        bestCost = cost;
        best = { axis, at: low + (bin + 1) / scale };
      }
    }
  }
  return best;
}

/** The middle of the longest side that centres are spread over, or null when all of them are one point: found in one go. */
export function middleSplit(
  boxes: Float32Array,
  order: Uint32Array,
  first: number,
  last: number,
): { axis: number; at: number } | null {
  sweep.fill(Infinity, 0, 3);
  sweep.fill(-Infinity, 3, 6);
  for (let i = first; i < last; i += 1)
    for (let axis = 0; axis < 3; axis += 1) {
      const c = centreOf(boxes, order[i]!, axis);
      if (c < sweep[axis]!) sweep[axis] = c;
      if (c > sweep[axis + 3]!) sweep[axis + 3] = c;
    }
  const spread = (axis: number) => sweep[axis + 3]! - sweep[axis]!;
  const axis = spread(0) >= spread(1) && spread(0) >= spread(2) ? 0 : spread(1) >= spread(2) ? 1 : 2;
  return spread(axis) < 1e-6 ? null : { axis, at: (sweep[axis]! + sweep[axis + 3]!) / 2 };
}

/** Room for one split at a time: a tree is built by one thread, and making these anew costs more than the sums. */
const binCounts = new Int32Array(BINS);
const binBoxes = new Float64Array(6 * BINS);
const binCosts = new Float64Array(BINS);
const sweep = new Float64Array(6);

function growBy(box: Float64Array, at: number, by: Float32Array | Float64Array, from: number): void {
  for (let k = 0; k < 3; k += 1) {
    if (by[from + k]! < box[at + k]!) box[at + k] = by[from + k]!;
    if (by[from + 3 + k]! > box[at + 3 + k]!) box[at + 3 + k] = by[from + 3 + k]!;
  }
}

function halfArea(b: Float64Array, at: number): number {
  const x = b[at + 3]! - b[at]!;
  const y = b[at + 4]! - b[at + 1]!;
  const z = b[at + 5]! - b[at + 2]!;
  return x * y + y * z + z * x;
}
