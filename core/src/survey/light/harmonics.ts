/**
 * Light that comes to a place from all sides, as spherical harmonics of three bands: nine numbers for each of red, green
 * and blue. What falls on a surface is within 1 % of the truth on average (Ramamoorthi & Hanrahan 2001).
 */
export const FIELD = 27;

/** What the cosine of a surface leaves of each band, over π (the same, eq. 8): what a white surface sends out. */
const BANDS = [1, 2 / 3, 1 / 4] as const;

/** The nine functions in a direction of length 1 (Sloan 2008, appendix A2). */
export function harmonics(x: number, y: number, z: number, out: Float64Array): void {
  out[0] = 0.28209479177387814;
  out[1] = 0.4886025119029199 * y;
  out[2] = 0.4886025119029199 * z;
  out[3] = 0.4886025119029199 * x;
  out[4] = 1.0925484305920792 * x * y;
  out[5] = 1.0925484305920792 * y * z;
  out[6] = 0.31539156525252005 * (3 * z * z - 1);
  out[7] = 1.0925484305920792 * x * z;
  out[8] = 0.5462742152960396 * (x * x - y * y);
}

/** Turns a field of radiances into one of what falls on surfaces, as a white one sends it out. */
export function soften(field: Float64Array): void {
  for (let i = 0; i < 9; i += 1) {
    const left = BANDS[i === 0 ? 0 : i < 4 ? 1 : 2]!;
    for (let k = 0; k < 3; k += 1) field[3 * i + k]! *= left;
  }
}
