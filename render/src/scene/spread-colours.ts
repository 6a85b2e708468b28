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
  const state = new Uint8Array(count);
  const mean = markThere(pixels, state);
  if (!mean) return;
  let ring: number[] = [];
  for (let i = 0; i < count; i += 1) {
    if (state[i] === KNOWN) continue;
    for (let k = 0; k < 3; k += 1) pixels[4 * i + k] = mean[k]!;
    if (!besideKnown(state, i, width)) continue;
    state[i] = QUEUED;
    ring.push(i);
  }
  for (let depth = 0; depth < RINGS && ring.length > 0; depth += 1) {
    // All of a ring are filled from what was known before it.
    for (const i of ring) fill(pixels, state, i, width);
    for (const i of ring) state[i] = KNOWN;
    const next: number[] = [];
    for (const i of ring)
      for (let side = 0; side < 4; side += 1) {
        const n = neighbour(i, side, width, count);
        if (n < 0 || state[n] !== UNKNOWN) continue;
        state[n] = QUEUED;
        next.push(n);
      }
    ring = next;
  }
}

const [UNKNOWN, KNOWN, QUEUED] = [0, 1, 2] as const;

/** Marks the pixels that have a colour; the mean of those, or null where there is none. */
function markThere(pixels: Uint8ClampedArray | Uint8Array, state: Uint8Array): [number, number, number] | null {
  let [r, g, b, whole] = [0, 0, 0, 0];
  for (let i = 0, p = 0; i < state.length; i += 1, p += 4) {
    const alpha = pixels[p + 3]!;
    if (alpha < THERE) continue;
    state[i] = KNOWN;
    r += alpha * pixels[p]!;
    g += alpha * pixels[p + 1]!;
    b += alpha * pixels[p + 2]!;
    whole += alpha;
  }
  return whole > 0 ? [r / whole, g / whole, b / whole] : null;
}

/** The pixel at one of the four sides of another; −1 beyond the edge. */
function neighbour(i: number, side: number, width: number, count: number): number {
  if (side === 0) return i % width > 0 ? i - 1 : -1;
  if (side === 1) return i % width < width - 1 ? i + 1 : -1;
  if (side === 2) return i - width;
  return i + width < count ? i + width : -1;
}

function besideKnown(state: Uint8Array, i: number, width: number): boolean {
  for (let side = 0; side < 4; side += 1) {
    const n = neighbour(i, side, width, state.length);
    if (n >= 0 && state[n] === KNOWN) return true;
  }
  return false;
}

/** The mean of what is known beside a pixel becomes its colour. */
function fill(pixels: Uint8ClampedArray | Uint8Array, state: Uint8Array, i: number, width: number): void {
  let [r, g, b, found] = [0, 0, 0, 0];
  for (let side = 0; side < 4; side += 1) {
    const n = neighbour(i, side, width, state.length);
    if (n < 0 || state[n] !== KNOWN) continue;
    r += pixels[4 * n]!;
    g += pixels[4 * n + 1]!;
    b += pixels[4 * n + 2]!;
    found += 1;
  }
  pixels[4 * i] = r / found;
  pixels[4 * i + 1] = g / found;
  pixels[4 * i + 2] = b / found;
}
