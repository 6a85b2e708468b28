import { execFileSync } from 'node:child_process';

/** The pixels of a PNG, red, green and blue, row by row. */
export const pixelsOf = (png: Buffer): Buffer =>
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'png_pipe', '-i', '-', '-pix_fmt', 'rgb24', '-f', 'rawvideo', '-'], {
    input: png,
    maxBuffer: 256 * 1024 * 1024,
  });
