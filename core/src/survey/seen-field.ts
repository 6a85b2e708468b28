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
  const count = Math.max(2, Math.ceil((LINES * (to - from)) / TURN)) + 1;
  const step = (to - from) / (count - 1);
  const distance = new Float64Array(count).fill(reach);
  for (let o = 0; o < segments.length; o += 4) {
    const [ax, az, bx, bz] = [segments[o]! - x, segments[o + 1]! - z, segments[o + 2]! - x, segments[o + 3]! - z];
    if (Math.min(ax, bx) > reach || Math.max(ax, bx) < -reach) continue;
    if (Math.min(az, bz) > reach || Math.max(az, bz) < -reach) continue;
    // Only the lines between its ends can meet a segment.
    const first = Math.atan2(ax, -az);
    const turn = Math.atan2(ax * bz - az * bx, ax * bx + az * bz);
    const start = wrapped(first - from + Math.min(0, turn));
    for (const begin of [start, start - TURN])
      for (let i = Math.max(0, Math.ceil(begin / step)); i < count && i * step <= begin + Math.abs(turn); i += 1) {
        const [dx, dz] = [Math.sin(from + i * step), -Math.cos(from + i * step)];
        // a + s · (b − a) = t · d
        const det = dx * (bz - az) - dz * (bx - ax);
        const t = (ax * (bz - az) - az * (bx - ax)) / det;
        if (t > 0 && t < distance[i]!) distance[i] = t;
      }
  }
  const out = new Float64Array(2 * (count + 1));
  out[0] = x;
  out[1] = z;
  for (let i = 0; i < count; i += 1) {
    out[2 * i + 2] = x + Math.sin(from + i * step) * distance[i]!;
    out[2 * i + 3] = z - Math.cos(from + i * step) * distance[i]!;
  }
  return out;
}

const TURN = 2 * Math.PI;
/** An angle brought to 0…2π. */
const wrapped = (angle: number): number => angle - TURN * Math.floor(angle / TURN);
