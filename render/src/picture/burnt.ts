import { luminanceOf } from '@eskovan/core/colour';
import { toDisplay } from '../scene/tone.ts';
import type { PictureSize } from './picture-size.ts';

/** Where it is this light, hardly anything can be told apart any more, of 255 (common practice, no source). */
const WHITE = 245;

/** Exposed radiance that comes to {@link WHITE}. */
export const BURNS_FROM = radianceOf(WHITE / 255);

/** @param display 0…1 */
function radianceOf(display: number): number {
  let [low, high] = [0, 64];
  for (let step = 0; step < 50; step += 1) {
    const middle = (low + high) / 2;
    if (toDisplay(middle) < display) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * How much of the frame of a picture is burnt out: as light as white, 0…1.
 * @param pixels RGBA, a row after the other
 */
export function burntPart(pixels: Uint8Array, { width, height, frame = { width, height } }: PictureSize): number {
  const [left, top] = [Math.round((width - frame.width) / 2), Math.round((height - frame.height) / 2)];
  let burnt = 0;
  for (let y = top; y < top + frame.height; y += 1)
    for (let x = left; x < left + frame.width; x += 1) {
      const at = 4 * (y * width + x);
      if (luminanceOf([pixels[at]!, pixels[at + 1]!, pixels[at + 2]!]) >= WHITE) burnt += 1;
    }
  return burnt / (frame.width * frame.height);
}

/**
 * How many stops darker a picture has to be until no more of it than a part burns out; nothing where it is so already.
 * @param lights exposed luminance of each pixel
 * @param part 0…1
 */
export function stopsToDraw(lights: Float32Array, part: number): number {
  const ordered = lights.slice().sort();
  const allowed = Math.floor(part * ordered.length);
  const last = ordered[ordered.length - 1 - allowed] ?? 0;
  return last <= BURNS_FROM ? 0 : Math.log2(last / BURNS_FROM);
}
