import { encodeSrgb } from '@eskovan/core/colour';

/**
 * Light to display. Because the working material is unlit, a vertex's whole colour is known when the model is built:
 * exposure, tone curve and display encoding are done once per vertex instead of once per pixel per frame.
 */

/** Linear exposure: what a sunlit white wall (about 2) and the far corner of a room (about 0.25) both survive. */
const EXPOSURE = 2.15;
/** Radiance that becomes full white. */
const WHITE = 3.4;

/** Reinhard et al. 2002, "Photographic tone reproduction for digital images", eq. 4: soft in the lights, true below. */
function compress(x: number): number {
  return Math.min(1, Math.max(0, (x * (1 + x / (WHITE * WHITE))) / (1 + x)));
}

/** Radiance (linear) to display value 0…1. */
export function toDisplay(radiance: number): number {
  return encodeSrgb(compress(radiance * EXPOSURE));
}

/** The same as {@link toDisplay}, for shaders: `vec3 toDisplay(vec3 radiance)`. */
export const TONE_GLSL = `
  vec3 toDisplay(vec3 radiance) {
    vec3 x = max(radiance, 0.0) * ${EXPOSURE.toFixed(4)};
    vec3 c = clamp(x * (1.0 + x / ${(WHITE * WHITE).toFixed(4)}) / (1.0 + x), 0.0, 1.0);
    return mix(12.92 * c, 1.055 * pow(c, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, c));
  }`;

/** Finest step of {@link displayByte}: 4096 steps up to a radiance of 8. */
const STEPS = 4096;
const MOST = 8;
const BYTES = Uint8Array.from({ length: STEPS + 1 }, (_, i) =>
  Math.round(255 * toDisplay((MOST * i * i) / (STEPS * STEPS))),
);

/** {@link toDisplay} as a byte, from a table that is fine in the dark: a model has a hundred thousand vertices. */
export function displayByte(radiance: number): number {
  return BYTES[Math.round(Math.sqrt(Math.min(Math.max(radiance, 0), MOST) / MOST) * STEPS)]!;
}
