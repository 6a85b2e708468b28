import type { Blocking } from './blocking.ts';

/** What an eye sees of a plan: from one angle to another, as far as it is looked. */
export interface SeenWish {
  /** Where the eye is, metres. */
  x: number;
  z: number;
  /** Bearings of the edges from −Z towards +X, radians; `to` is the larger. */
  from: number;
  to: number;
  /** metres */
  reach: number;
}

/** Sight lines of a whole turn. */
const LINES = 720;

/**
 * The outline of the floor that is seen from a place: walls stop it. Pairs of x and z, beginning at the eye, metres.
 * @param blocking what stops a view: no glass
 */
export function seenField({ segments }: Blocking, { x, z, from, to, reach }: SeenWish): Float64Array {
  const near = within(segments, x, z, reach);
  const lines = Math.max(2, Math.ceil((LINES * (to - from)) / (2 * Math.PI))) + 1;
  const out = new Float64Array(2 * (lines + 1));
  out[0] = x;
  out[1] = z;
  for (let i = 0; i < lines; i += 1) {
    const bearing = from + ((to - from) * i) / (lines - 1);
    const [dx, dz] = [Math.sin(bearing), -Math.cos(bearing)];
    let distance = reach;
    for (let o = 0; o < near.length; o += 4) {
      const [ax, az] = [near[o]! - x, near[o + 1]! - z];
      const [ex, ez] = [near[o + 2]! - near[o]!, near[o + 3]! - near[o + 1]!];
      const det = dx * ez - dz * ex;
      if (det === 0) continue;
      // a + s · e = t · d
      const t = (ax * ez - az * ex) / det;
      const s = (ax * dz - az * dx) / det;
      if (t > 0 && t < distance && s >= 0 && s <= 1) distance = t;
    }
    out[2 * i + 2] = x + dx * distance;
    out[2 * i + 3] = z + dz * distance;
  }
  return out;
}

/** Segments that come near enough to matter. */
function within(segments: Float64Array, x: number, z: number, reach: number): Float64Array {
  const kept: number[] = [];
  for (let o = 0; o < segments.length; o += 4) {
    const [ax, az, bx, bz] = [segments[o]!, segments[o + 1]!, segments[o + 2]!, segments[o + 3]!];
    if (Math.min(ax, bx) > x + reach || Math.max(ax, bx) < x - reach) continue;
    if (Math.min(az, bz) > z + reach || Math.max(az, bz) < z - reach) continue;
    kept.push(ax, az, bx, bz);
  }
  return Float64Array.from(kept);
}
