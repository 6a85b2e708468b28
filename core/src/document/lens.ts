import { z } from 'zod';
import { exposureSchema } from './light.ts';
import { finite } from './primitives.ts';

/** The light-sensitive area of the camera, millimetres. */
export const sensorSchema = z.object({
  /** mm, 1–200. */
  widthMm: finite.min(1).max(200),
  /** mm, 1–200. */
  heightMm: finite.min(1).max(200),
});
export type Sensor = z.infer<typeof sensorSchema>;

/** No picture is shifted by more than so many times the sensor's width or height. */
export const MOST_SHIFT = 2;
const shift = finite.min(-MOST_SHIFT).max(MOST_SHIFT);

export const lensSchema = z.object({
  /** mm, 1–2000. */
  focalLengthMm: finite.min(1).max(2000),
  sensor: sensorSchema,
  /** Lens shift as a part of the sensor height (y) and width (x); +y moves the picture's centre up. */
  shift: z.tuple([shift, shift]).default([0, 0]),
  /** Distance that is sharp, metres; without it everything is. */
  focus: finite.min(0.005).max(100_000).optional(),
  /** Focal length over the width of the lens's opening; without it everything is sharp. */
  fNumber: finite.min(0.5).max(128).optional(),
  /**
   * Rays are parallel, as of a telecentric lens, and the picture is so many metres high. The focal length is kept for
   * coming back to a lens, and means nothing meanwhile.
   */
  parallel: finite.min(0.001).max(1_000_000).optional(),
  /** What is nearer before the eye than this is cut away, metres. */
  nearCut: finite.min(0).max(1_000_000).optional(),
  /** What is farther before the eye than this is cut away, metres. */
  farCut: finite.min(0.001).max(1_000_000).optional(),
  /** Lighter or darker than other pictures in the same light, stops; without it as light. */
  exposure: exposureSchema.optional(),
});
export type Lens = z.infer<typeof lensSchema>;

export const DEFAULT_SENSOR: Sensor = { widthMm: 36, heightMm: 24 };
export const DEFAULT_LENS: Lens = { focalLengthMm: 24, sensor: DEFAULT_SENSOR, shift: [0, 0] };
