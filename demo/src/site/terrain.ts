import { Color } from 'three';
import type { Rgb } from '../kit/index.ts';

/** Height of the water at the tide that is shown, metres. */
export const WATER = -0.75;

/** Middle of the tidal channel at a given x. */
const channelAt = (x: number) => 46 + 9 * Math.sin(x * 0.06) + 3 * Math.sin(x * 0.15);

/** The low hill in the north-east: where its top is, how high and how wide. */
export const HILL = { x: 64, z: -44, height: 5.2, radius: 26 } as const;

/** Height of the marsh: level about the house, rolling gently away, cut by the channel, a low hill in the north-east. */
export function groundAt(x: number, z: number): number {
  const away = Math.max(0, Math.hypot((x - 12) / 1.5, z - 6) - 22);
  const fade = Math.min(1, away / 25);
  const roll = 0.5 * Math.sin(x * 0.045) * Math.cos(z * 0.038) + 0.25 * Math.sin(x * 0.11 + z * 0.07);
  const seaward = z > 6 ? -0.014 * away : 0.012 * away;
  const channel = 0.9 * Math.exp(-(((z - channelAt(x)) / 7) ** 2));
  const hill = HILL.height * Math.exp(-((Math.hypot(x - HILL.x, z - HILL.z) / HILL.radius) ** 2) * 1.6);
  return fade * (roll + seaward) - channel + hill - 0.02;
}

/** Patches of vegetation: a smooth field from about −1 to 1. */
const growth = (x: number, z: number) =>
  0.45 * Math.sin(x * 0.09 + 1.3 * Math.sin(z * 0.05)) +
  0.3 * Math.sin(z * 0.13 - x * 0.04) +
  0.22 * Math.sin(x * 0.31 + z * 0.27) +
  0.16 * Math.sin(x * 0.83 - z * 0.61);

const linear = (srgb: string) => new Color(srgb).toArray() as [number, number, number];
const DEEP = linear('#5b6739');
const GRASS = linear('#707a44');
const DRY = linear('#8d8656');
const MUD = linear('#7d725a');
const SAND = linear('#a3997d');

const mix = (a: Rgb, b: Rgb, t: number): Rgb => {
  const s = Math.min(1, Math.max(0, t));
  return [a[0] + (b[0] - a[0]) * s, a[1] + (b[1] - a[1]) * s, a[2] + (b[2] - a[2]) * s];
};

/** Colour of the ground, linear: grass that runs from deep to dry, mud towards the water, sand at its edge. */
export function coverAt(x: number, z: number): Rgb {
  const g = growth(x, z);
  const grass = g < 0 ? mix(GRASS, DEEP, -g * 1.4) : mix(GRASS, DRY, g * 1.2);
  const height = groundAt(x, z);
  const wet = 1 - (height - WATER) / 0.55;
  return mix(mix(grass, SAND, wet * 1.1), MUD, wet * 1.6 - 0.75);
}
