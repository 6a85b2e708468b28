import { decodeSrgb } from './srgb.ts';

/** Luminance of linear red, green and blue (ITU-R BT.709). */
export const luminanceOf = ([r, g, b]: readonly [number, number, number]): number =>
  0.2126 * r + 0.7152 * g + 0.0722 * b;

/** Two pictures that follow each other differ by so much before it is seen as a jump (common practice, no source). */
export const LIGHTNESS_JUMP = 15;

/** CIE 1976 lightness, 0…100, of a luminance as a part of white's (CIE 15). */
export function lightness(luminance: number): number {
  const edge = (6 / 29) ** 3;
  return luminance > edge ? 116 * Math.cbrt(luminance) - 16 : luminance * (29 / 3) ** 3;
}

/** How light a picture is on the whole: the lightness of its mean luminance, 0…100. @param pixels sRGB, RGBA, eight bits each */
export function meanLightness(pixels: Uint8ClampedArray): number {
  let sum = 0;
  const linear = (at: number) => decodeSrgb(pixels[at]! / 255);
  for (let i = 0; i < pixels.length; i += 4) sum += luminanceOf([linear(i), linear(i + 1), linear(i + 2)]);
  return lightness(sum / Math.max(1, pixels.length / 4));
}
