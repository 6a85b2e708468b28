import { execFileSync } from 'node:child_process';

/** Parts of a picture's width and height that are looked at, in its middle. */
export interface Middle {
  width: number;
  height: number;
}
const WHOLE: Middle = { width: 1, height: 1 };

/** The pixels of a PNG, red, green and blue, row by row. */
export const pixelsOf = (png: Buffer, { width, height }: Middle = WHOLE): Buffer =>
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-f', 'png_pipe', '-i', '-', '-pix_fmt', 'rgb24', '-f', 'rawvideo'],
      ...['-vf', `crop=round(iw*${width}):round(ih*${height})`, '-'],
    ],
    { input: png, maxBuffer: 256 * 1024 * 1024 },
  );

/**
 * How two pictures differ.
 * @param more steps of 255 beyond which a pixel is off
 * @returns the mean difference in steps of 255, and the share of pixels that are off
 */
export function apart(a: Buffer, b: Buffer, more: number, middle?: Middle): { mean: number; off: number } {
  const [p, q] = [pixelsOf(a, middle), pixelsOf(b, middle)];
  let [sum, off] = [0, 0];
  for (let i = 0; i < p.length; i += 3) {
    const by = (Math.abs(p[i]! - q[i]!) + Math.abs(p[i + 1]! - q[i + 1]!) + Math.abs(p[i + 2]! - q[i + 2]!)) / 3;
    sum += by;
    if (by > more) off += 1;
  }
  return { mean: sum / (p.length / 3), off: off / (p.length / 3) };
}
