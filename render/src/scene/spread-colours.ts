/** A pixel with less alpha than this has no colour of its own worth keeping: browsers keep colours times alpha. */
const THERE = 24;
/** Colours go on for so many pixels beyond an edge; beyond that all is as the mean of what is there. */
const RINGS = 4;

/**
 * Gives what is cut out of a picture the colours of what it is cut out of. Between two pixels a colour is a mean: where one
 * of them is cut out and black, leaves and railings get a dark outline, and from far away they are all outline.
 * @param pixels RGBA, row by row; changed
 */
export function spreadColours(pixels: Uint8ClampedArray | Uint8Array, width: number): void {
  const count = pixels.length / 4;
  const known = new Uint8Array(count);
  const sum = [0, 0, 0, 0];
  for (let i = 0; i < count; i += 1) {
    const alpha = pixels[4 * i + 3]!;
    if (alpha < THERE) continue;
    known[i] = 1;
    for (let k = 0; k < 3; k += 1) sum[k]! += alpha * pixels[4 * i + k]!;
    sum[3]! += alpha;
  }
  const whole = sum[3]!;
  if (whole === 0) return;
  const mean = [0, 1, 2].map((k) => sum[k]! / whole);
  let ring: number[] = [];
  for (let i = 0; i < count; i += 1) {
    if (known[i]) continue;
    for (let k = 0; k < 3; k += 1) pixels[4 * i + k] = mean[k]!;
    const column = i % width;
    // Millions of pixels: nothing is allocated for those that are far from everything.
    const beside =
      (column > 0 && known[i - 1]) ||
      (column < width - 1 && known[i + 1]) ||
      (i >= width && known[i - width]) ||
      (i + width < count && known[i + width]);
    if (beside) ring.push(i);
  }
  for (let depth = 0; depth < RINGS && ring.length > 0; depth += 1) {
    const colours = ring.map((i) => {
      const from = neighbours(i, width, count).filter((n) => known[n] === 1);
      return [0, 1, 2].map((k) => from.reduce((all, n) => all + pixels[4 * n + k]!, 0) / from.length);
    });
    const next = new Set<number>();
    ring.forEach((i, at) => {
      for (let k = 0; k < 3; k += 1) pixels[4 * i + k] = colours[at]![k]!;
      known[i] = 1;
      for (const n of neighbours(i, width, count)) if (!known[n]) next.add(n);
    });
    ring = [...next].filter((i) => !known[i]);
  }
}

/** The four pixels beside one, as far as there are any. */
function neighbours(i: number, width: number, count: number): number[] {
  const column = i % width;
  const beside: number[] = [];
  if (column > 0) beside.push(i - 1);
  if (column < width - 1) beside.push(i + 1);
  if (i >= width) beside.push(i - width);
  if (i + width < count) beside.push(i + width);
  return beside;
}
