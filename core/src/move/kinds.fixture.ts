import {
  DEFAULT_LENS,
  FIRST_LIMITS,
  type Glide,
  type Orbit,
  type Travel,
  type TravelPose,
  type Vec3,
} from '../document/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { Footing } from '../survey/index.ts';
import type { MoveSite } from './compile-move.ts';

export const MODEL = '00000000-0000-4000-8000-000000000001';
const HEX = 16;
/** Ids in order. */
export const idOf = (n: number): string => `00000000-0000-4000-8000-${n.toString(HEX).padStart(12, '0')}`;
let made = 0x1000;
export const newId = (): string => idOf((made += 1));

export const nowhere = new Footing(new Float32Array(0), new Float32Array(0));
export const siteOf = (change: Partial<MoveSite> = {}): MoveSite => ({
  footing: nowhere,
  walker: { height: 1.9, step: 0.25 },
  parts: [],
  motion: null,
  aspect: 16 / 9,
  limits: FIRST_LIMITS,
  ...change,
});

export const poseOf = (
  n: number,
  time: number,
  position: Vec3,
  [pan, tilt, roll]: Vec3 = [0, 0, 0],
  change: Partial<TravelPose> = {},
): TravelPose => ({
  id: idOf(n),
  time,
  hold: 0,
  position,
  orientation: orientationOf({ pan, tilt, roll }),
  span: 'smooth',
  ...change,
});

export const travelOf = (poses: TravelPose[], change: Partial<Travel> = {}): Travel => ({
  kind: 'travel',
  poses,
  turning: 'level',
  ends: 'rest',
  gaze: { kind: 'kept' },
  lens: DEFAULT_LENS,
  ...change,
});

export const glideOf = (points: readonly Vec3[], change: Partial<Glide> = {}, closed = false): Glide => ({
  kind: 'glide',
  path: {
    closed,
    nodes: points.map(([x, y, z], i) => ({ id: idOf(i + 1), x, y, z, kind: 'smooth', radius: 0.5 })),
  },
  height: { by: 'drawn' },
  pace: { by: 'duration', speed: 1, duration: 10, shape: 'constant' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
  ...change,
});

export const orbitOf = (change: Partial<Orbit> = {}): Orbit => ({
  kind: 'orbit',
  pivot: { kind: 'point', point: [3, 1, -2] },
  start: 0.4,
  sweep: 2 * Math.PI,
  inclination: 0.3,
  distance: { by: 'radius', radius: 4 },
  duration: 5,
  shape: 'constant',
  lens: { ...DEFAULT_LENS, focalLengthMm: 50 },
  ...change,
});
