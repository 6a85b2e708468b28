import { smooth } from '../../geometry/index.ts';

type Rgb = readonly [number, number, number];

/** Radiances of the outdoors, linear, relative to a sunlit white wall of about one. */
export interface Daylight {
  /** What a white surface square to the sun's rays sends out because of them. */
  sun: Rgb;
  zenith: Rgb;
  horizon: Rgb;
  ground: Rgb;
}

const LOW_SUN: Rgb = [1.1, 0.55, 0.24];
const HIGH_SUN: Rgb = [1.38, 1.24, 1.05];
const AFTERNOON_SUN: Rgb = [1.35, 1.18, 0.95];
const ZENITH: Rgb = [0.5, 0.68, 0.95];
const HORIZON: Rgb = [0.92, 0.95, 0.98];
const GROUND: Rgb = [0.3, 0.28, 0.23];
/** Sine of the height at which the afternoon's colours hold: 34°. */
const AFTERNOON = 0.56;

/**
 * Sun and sky by the height of the sun: redder and weaker when low, a dim sky at night. A fit by eye to clear days,
 * no source.
 * @param sun unit vector towards the sun
 */
export function daylight([, height]: Rgb): Daylight {
  const colour =
    height < AFTERNOON
      ? mix(LOW_SUN, AFTERNOON_SUN, smooth(0, AFTERNOON * 0.8, height))
      : mix(AFTERNOON_SUN, HIGH_SUN, (height - AFTERNOON) / (1 - AFTERNOON));
  const risen = smooth(-0.015, 0.09, height);
  const day = 0.035 + 0.965 * smooth(-0.2, 0.3, height);
  const dusk = smooth(0.3, 0, height) * smooth(-0.15, 0, height);
  return {
    sun: scale(colour, risen),
    zenith: scale(ZENITH, day),
    horizon: scale(mix(HORIZON, [1.1, 0.72, 0.5], 0.7 * dusk), day),
    ground: scale(GROUND, day),
  };
}

const scale = (c: Rgb, by: number): Rgb => [c[0] * by, c[1] * by, c[2] * by];
const mix = (a: Rgb, b: Rgb, t: number): Rgb => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** A place where no light ever comes still shows its shape: by this part of the light of the zenith. */
export const DARKEST = 0.006;
