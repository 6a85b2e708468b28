import type { Rate } from '@eskovan/core/document';
import type { PictureSize } from '../picture/picture-size.ts';

/** Bits a second of a film of 1920 × 1080 at 25 frames a second: sky and plaster stay smooth. By eye, no source. */
const FULL = 16_000_000;
const FULL_PIXELS = 1920 * 1080;
const FULL_RATE = 25;
/** A small picture has more in each of its pixels: bits grow with this power of their number. By eye, no source. */
const GROWTH = 0.75;

/** Bits a second that a film may take at most; calm shots take less. */
export function bitrateOf({ width, height }: PictureSize, { num, den }: Rate): number {
  return Math.round(FULL * ((width * height) / FULL_PIXELS) ** GROWTH * (num / den / FULL_RATE));
}
