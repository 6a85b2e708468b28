import { luminanceOf } from '../../colour/index.ts';
import { smooth } from '../../geometry/index.ts';
import type { SiteLight } from '../../document/index.ts';

type Rgb = readonly [number, number, number];

/** Radiances of the outdoors, linear, relative to a sunlit white wall of about one. */
export interface Daylight {
  /** What a white surface square to the sun's rays sends out because of them. */
  sun: Rgb;
  zenith: Rgb;
  horizon: Rgb;
  ground: Rgb;
  /** How the sky goes from horizon to zenith: this power of the sine of the height. */
  rise: number;
}

const LOW_SUN: Rgb = [1.1, 0.55, 0.24];
const HIGH_SUN: Rgb = [1.38, 1.24, 1.05];
const AFTERNOON_SUN: Rgb = [1.35, 1.18, 0.95];
const ZENITH: Rgb = [0.5, 0.68, 0.95];
const HORIZON: Rgb = [0.92, 0.95, 0.98];
const GROUND: Rgb = [0.3, 0.28, 0.23];
/** The zenith of a cover of cloud, and what the ground below it sends back of the light that it gives. */
const COVER: Rgb = [0.94, 0.97, 1];
const GROUND_UNDER_COVER: Rgb = [0.2, 0.195, 0.17];
/** How much bluer the sky is once the sun is down. */
const BLUE_HOUR: Rgb = [0.72, 0.9, 1.18];
const WHITE: Rgb = [1, 1, 1];
const NOTHING: Rgb = [0, 0, 0];
/** Of the sky by day, so much is left by night: far more than there is, so that pictures show something. */
const NIGHT = 0.012;
/** What open ground gets under an overcast sky, as a white surface sends it out, over its zenith (Moon & Spencer 1942). */
const OVERCAST_GROUND = 7 / 9;
/** Sine of the height at which the afternoon's colours hold: 34°. */
const AFTERNOON = 0.56;

/** Does the sun send rays: is it up, but for the width of its disc, in a clear sky? */
export const sunShines = ({ sun: [, height], sky }: Pick<SiteLight, 'sun' | 'sky'>): boolean =>
  height >= -0.02 && sky === 'clear';

/**
 * Sun and sky by the height of the sun: redder and weaker when low, a dim sky at night. A fit by eye to clear days,
 * no source. Under cloud the sky is the CIE standard overcast one (CIE S 011 / ISO 15469, type 16): three times as bright
 * at the zenith as at the horizon, by (1 + 2 sin γ) / 3.
 */
export function daylight({ sun: [, height], sky }: Pick<SiteLight, 'sun' | 'sky'>): Daylight {
  if (sky === 'dark') return { sun: NOTHING, zenith: NOTHING, horizon: NOTHING, ground: NOTHING, rise: 1 };
  const colour =
    height < AFTERNOON
      ? mix(LOW_SUN, AFTERNOON_SUN, smooth(0, AFTERNOON * 0.8, height))
      : mix(AFTERNOON_SUN, HIGH_SUN, (height - AFTERNOON) / (1 - AFTERNOON));
  const risen = smooth(-0.015, 0.09, height);
  const day = NIGHT + (1 - NIGHT) * smooth(-0.16, 0.3, height);
  const blue = mix(WHITE, BLUE_HOUR, smooth(0.06, -0.08, height));
  const dusk = smooth(0.3, 0, height) * smooth(-0.15, 0, height);
  if (sky === 'overcast') {
    const cover = scale(tinted(COVER, blue), day);
    return {
      sun: [0, 0, 0],
      zenith: cover,
      horizon: scale(cover, 1 / 3),
      ground: GROUND_UNDER_COVER.map((back, k) => back * OVERCAST_GROUND * cover[k]!) as unknown as Rgb,
      rise: 1,
    };
  }
  return {
    sun: scale(colour, risen),
    zenith: scale(tinted(ZENITH, blue), day),
    horizon: scale(tinted(mix(HORIZON, [1.1, 0.72, 0.5], 0.7 * dusk), blue), day),
    ground: scale(tinted(GROUND, blue), day),
    rise: 0.6,
  };
}

const scale = (c: Rgb, by: number): Rgb => [c[0] * by, c[1] * by, c[2] * by];
const tinted = (c: Rgb, by: Rgb): Rgb => [c[0] * by[0], c[1] * by[1], c[2] * by[2]];
const mix = (a: Rgb, b: Rgb, t: number): Rgb => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** Of the sky’s zenith and horizon so much falls on open ground, as a white surface sends it out. */
const OPEN_SKY = 0.45;
/** Of the sun that falls on things so much is seen in: a sunlit floor glows, a sunlit field does not burn. */
export const SUN_SHARE = 0.6;

/** What light falls on open ground, as eyes are used to it; as a white surface sends it out. */
export function openLight({ sun, sky }: Pick<SiteLight, 'sun' | 'sky'>): Rgb {
  const day = daylight({ sun, sky });
  const high = Math.max(0, sun[1]);
  const at = (k: 0 | 1 | 2) => OPEN_SKY * (day.zenith[k] + day.horizon[k]) + SUN_SHARE * high * day.sun[k];
  return [at(0), at(1), at(2)];
}

/**
 * What unlit colours are multiplied by: they are taken for a picture of the outdoors at that hour, in neutral light. So
 * they go with what is lit beside them, and give it light.
 */
export const unlitLight = (light: Pick<SiteLight, 'sun' | 'sky'>): number => luminanceOf(openLight(light));

/** A place where no light ever comes still shows its shape: by this part of the light of the zenith. */
export const DARKEST = 0.006;
