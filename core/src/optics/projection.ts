import type { Lens } from '../document/index.ts';
import { usedSensor } from './view-angle.ts';

/** Edges of the picture on a plane one metre in front of the eye, metres. */
export interface Window {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/**
 * The off-axis window of a shifted lens. Shift moves the window, never the view angle: a level camera with a
 * vertical shift keeps verticals parallel.
 * @param aspect width over height of the picture
 */
export function projectionWindow(lens: Lens, aspect: number): Window {
  const { widthMm, heightMm } = usedSensor(lens.sensor, aspect);
  const halfWidth = widthMm / (2 * lens.focalLengthMm);
  const halfHeight = heightMm / (2 * lens.focalLengthMm);
  const dx = (lens.shift[0] * lens.sensor.widthMm) / lens.focalLengthMm;
  const dy = (lens.shift[1] * lens.sensor.heightMm) / lens.focalLengthMm;
  return { left: dx - halfWidth, right: dx + halfWidth, bottom: dy - halfHeight, top: dy + halfHeight };
}
