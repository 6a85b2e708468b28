import { luminanceOf } from '../../colour/index.ts';
import type { SceneModel } from '../../format/index.ts';
import type { Quaternion, SiteLight, Vec3 } from '../../document/index.ts';
import { forwardOf, smooth } from '../../geometry/index.ts';
import { daylight, openLight } from './daylight.ts';
import { meterPoints, POINT_NUMBERS } from './meter-points.ts';
import { Sight } from './sight.ts';

/** Nothing farther than this is metered by, metres. */
const REACH = 30;
/** So near to the eye all is equally near, metres. */
const NEAR = 1.4;
/** Cosines of the angles from straight ahead within which a point counts whole, and beyond which hardly. */
const AHEAD = 0.8;
const ASIDE = 0.3;
/** What is beside the picture still counts a little: people’s eyes are used to where they are. */
const LEAST = 0.06;
/** So does what lies behind a wall: stepping out of a door is no jump. */
const HIDDEN = 0.12;
/**
 * What fills less of the picture than this (solid angle, steradians, weighed) has open ground and sky about it: they are
 * metered by as well, so that a small thing that turns does not make its surroundings brighter and darker.
 */
const OPEN_ABOUT = 0.25;
/** White in light of the mean brightness comes to this before the tone curve. */
const KEY = 0.84;
/** How far the eye gets used to the brightness and to the colour of where it is, 0…1: a dim room stays dimmer. */
const USED_TO_BRIGHTNESS = 0.84;
const USED_TO_COLOUR = 0.8;
/**
 * Under less open light than this (as a white surface sends it out) it is getting dark, and the eye does not follow all
 * the way: pictures are darker by this power of what is missing, and keep more of the colour of their light.
 */
const DIM = 0.5;
const DARKER = 0.35;
const USED_TO_DUSK = 0.4;
/** No picture is made brighter or darker than this by itself. */
const GAINS: readonly [number, number] = [0.4, 14];
/** Of what has got no light yet. */
export const FIRST_GAIN: Vec3 = [1.3, 1.3, 1.3];

/**
 * How bright a picture is to be: from the log-average of the light that falls on what the camera sees (Reinhard et al.
 * 2002, eq. 1), weighed by what fills the picture. It depends on the pose alone; along a move it is smoothed in time by
 * an `ExposureTrack`.
 */
export class LightMeter {
  private readonly points: Float32Array;
  private readonly sight: Sight;
  /** What fills `sight` as yet: before a site is lit nothing needs it. */
  private filling: Iterator<void> | null;
  /** Logarithms of the light that falls on open ground. */
  private readonly open: readonly number[];
  /** What pictures are made darker by because it is getting dark, and how far their colour is got used to. */
  private readonly dim: number;
  private readonly usedToColour: number;

  constructor(model: SceneModel, { sun, sky }: Pick<SiteLight, 'sun' | 'sky'>) {
    const outdoors = daylight({ sun, sky });
    this.points = meterPoints(model, outdoors);
    this.sight = new Sight(model);
    this.filling = this.points.length > 0 ? this.sight.filling() : null;
    this.open = openLight({ sun, sky }).map((value) => Math.log(Math.max(1e-4, value)));
    const day = Math.min(1, Math.exp(this.open[1]!) / DIM);
    this.dim = day ** DARKER;
    this.usedToColour = USED_TO_DUSK + (USED_TO_COLOUR - USED_TO_DUSK) * day;
  }

  /** Does what takes longest ahead of the first question. @param between awaited now and then */
  async prepare(between: () => Promise<void>): Promise<void> {
    while (this.goOn()) await between();
  }

  /** @returns whether there is more to do */
  private goOn(): boolean {
    if (this.filling?.next().done) this.filling = null;
    return this.filling !== null;
  }

  /** What radiances are multiplied by in a picture from a pose: red, green, blue. */
  gainAt(position: Vec3, orientation: Quaternion): Vec3 {
    const p = this.points;
    if (p.length === 0) return FIRST_GAIN;
    while (this.goOn());
    const [fx, fy, fz] = forwardOf(orientation);
    let [whole, r, g, b] = [0, 0, 0, 0];
    for (let o = 0; o < p.length; o += POINT_NUMBERS) {
      const [dx, dy, dz] = [p[o]! - position[0], p[o + 1]! - position[1], p[o + 2]! - position[2]];
      const square = dx * dx + dy * dy + dz * dz;
      if (square > REACH * REACH) continue;
      const distance = Math.sqrt(square) + 1e-6;
      const facing = -(dx * p[o + 3]! + dy * p[o + 4]! + dz * p[o + 5]!) / distance;
      if (facing <= 0) continue;
      const ahead = (dx * fx + dy * fy + dz * fz) / distance;
      const fade = 1 - square / (REACH * REACH);
      // What a piece of surface fills of the picture, however finely its triangles are cut.
      const area = p[o + 9]! * facing;
      const fills = area / (square + NEAR * NEAR + area);
      const seen = this.sight.isFree(position, p, o) ? 1 : HIDDEN;
      const weight = seen * (LEAST + (1 - LEAST) * smooth(ASIDE, AHEAD, ahead)) * fade * fade * fills;
      whole += weight;
      r += weight * p[o + 6]!;
      g += weight * p[o + 7]!;
      b += weight * p[o + 8]!;
    }
    const about = OPEN_ABOUT * Math.exp(-((whole / OPEN_ABOUT) ** 2));
    whole += about;
    r += about * this.open[0]!;
    g += about * this.open[1]!;
    b += about * this.open[2]!;
    const mean = [Math.exp(r / whole), Math.exp(g / whole), Math.exp(b / whole)] as const;
    const luminance = luminanceOf(mean);
    const gain = Math.min(GAINS[1], Math.max(GAINS[0], (this.dim * KEY) / luminance ** USED_TO_BRIGHTNESS));
    return mean.map((value) => gain * (luminance / value) ** this.usedToColour) as unknown as Vec3;
  }
}
