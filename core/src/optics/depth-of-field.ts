import type { Sensor } from '../document/index.ts';

export interface DepthOfField {
  /** Hyperfocal distance, metres. */
  hyperfocal: number;
  /** Nearest sharp distance, metres. */
  near: number;
  /** Farthest sharp distance, metres; Infinity beyond the hyperfocal distance. */
  far: number;
}

/** Circle of confusion, mm: sensor diagonal / 1442 (0.030 mm at 36 × 24). */
export function circleOfConfusionMm(sensor: Sensor): number {
  return Math.hypot(sensor.widthMm, sensor.heightMm) / 1442;
}

/**
 * H = f²/(N·c) + f; near = s(H−f)/(H+s−2f); far = s(H−f)/(H−s).
 * @param focusDistance metres from the lens
 */
export function depthOfField(
  focalLengthMm: number,
  fNumber: number,
  focusDistance: number,
  circleMm: number,
): DepthOfField {
  const f = focalLengthMm / 1000;
  const hyperfocal = (f * f) / (fNumber * (circleMm / 1000)) + f;
  const near = (focusDistance * (hyperfocal - f)) / (hyperfocal + focusDistance - 2 * f);
  const far =
    focusDistance >= hyperfocal ? Infinity : (focusDistance * (hyperfocal - f)) / (hyperfocal - focusDistance);
  return { hyperfocal, near, far };
}
