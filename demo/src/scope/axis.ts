import type { Point } from '../kit/index.ts';

/** Height of the tube's middle above the floor, metres. */
export const EYE = 1.42;
/** The tube looks along −z, a little up. */
const AIM = 0.09;

/** A point on the axis of the tube: metres forward of its middle, and beside it. */
export const along = (forward: number, right = 0, up = 0): Point => [
  right,
  EYE + AIM * forward + up,
  -forward * Math.sqrt(1 - AIM * AIM),
];
