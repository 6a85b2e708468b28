import { GOLDEN_ANGLE } from '../../geometry/index.ts';

/**
 * Tangent and bitangent of a normal (Duff et al. 2017, "Building an orthonormal basis, revisited"). The same for all
 * points of a plane: their rays make the same errors, so that a wall is even.
 */
export function setFrame(frame: Float64Array, nx: number, ny: number, nz: number): void {
  // A hair of rounding must not turn the frame: walls far from the origin are lit as those at it.
  const sign = nz >= -1e-4 ? 1 : -1;
  const a = -1 / (sign + nz);
  const b = nx * ny * a;
  frame[0] = 1 + sign * nx * nx * a;
  frame[1] = sign * b;
  frame[2] = -sign * nx;
  frame[3] = b;
  frame[4] = sign + ny * ny * a;
  frame[5] = -ny;
}

/** Points of a unit disc and heights of a cosine-weighted hemisphere, by the golden angle. */
export function hemisphere(count: number): Float64Array {
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i += 1) {
    const r = Math.sqrt((i + 0.5) / count);
    const a = i * GOLDEN_ANGLE;
    out.set([r * Math.cos(a), Math.sqrt(1 - r * r), r * Math.sin(a)], 3 * i);
  }
  return out;
}

/** Places that fill a square from −half to half evenly, however many are asked for (the R2 sequence: Roberts 2018). */
export const onSquare = (i: number, half: number): [number, number] => [
  half * (2 * (((i + 1) * 0.7548776662) % 1) - 1),
  half * (2 * (((i + 1) * 0.5698402909) % 1) - 1),
];
