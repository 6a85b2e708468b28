import { ACROSS, NO_FLOW, UP, type ImageFlow } from './flow.ts';

/** How the pictures of a clip move, measured in its file. */
export interface ClipMotion {
  /** Width over height of its pictures. */
  aspect: number;
  /** Seconds of the file from one measured time to the next; the first is at 0. */
  every: number;
  /** Velocities at each time on the grid of {@link ImageFlow}, widths of the clip a second, to the right and up. */
  fields: readonly Float32Array[];
}

/**
 * How a clip moves while it is shown: all of it, as large as it fits, black beside it.
 * @param time of its file, seconds @param speed seconds of the file in one of the reel, below 0 backwards
 * @param aspect width over height of the pictures that it is shown in
 */
export function clipFlow(
  { aspect: own, every, fields }: ClipMotion,
  time: number,
  speed: number,
  aspect: number,
): ImageFlow {
  const field = fields[Math.max(0, Math.min(fields.length - 1, Math.round(time / every)))];
  if (!field) return NO_FLOW;
  // Parts of the picture's width and height that it takes.
  const [across, up] = [Math.min(1, own / aspect), Math.min(1, aspect / own)];
  const { places } = NO_FLOW;
  const velocities = new Float64Array(places.length);
  let sum = 0;
  for (let i = 0; i < ACROSS * UP; i += 1) {
    const [x, y] = [places[2 * i]! / across, places[2 * i + 1]! / up];
    if (Math.abs(x) > 1 || Math.abs(y) > 1) continue;
    const from = nearest(y, UP) * ACROSS + nearest(x, ACROSS);
    for (const k of [0, 1]) velocities[2 * i + k] = field[2 * from + k]! * across * speed;
    sum += Math.hypot(velocities[2 * i]!, velocities[2 * i + 1]!);
  }
  return { places, velocities, speed: sum / (ACROSS * UP) };
}

const nearest = (at: number, count: number): number =>
  Math.max(0, Math.min(count - 1, Math.floor(((at + 1) / 2) * count)));
