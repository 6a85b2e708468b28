import type { CameraView } from './projection.ts';
import { usedSensor } from './view-angle.ts';

/** How much of the width and the height of a picture the largest cut-out of another ratio has. */
export function cutOutSize(whole: number, ratio: number): { width: number; height: number } {
  return ratio < whole ? { width: ratio / whole, height: 1 } : { width: 1, height: whole / ratio };
}

/**
 * The largest cut-out of another ratio, as a view of its own: an off-axis window, so that it shows to the point what the
 * same part of the whole picture shows.
 * @param whole width over height of the whole picture
 * @param ratio width over height of the cut-out
 * @param aside where it lies: −1 at the left edge of the whole, 1 at the right
 * @returns the view, and how far the eye goes to the right for it, metres: only parallel rays need that
 */
export function cutOutView(
  view: CameraView,
  whole: number,
  ratio: number,
  aside: number,
): { view: CameraView; right: number } {
  const { width, height } = cutOutSize(whole, ratio);
  if (view.kind === 'parallel')
    return { view: { ...view, height: view.height * height }, right: (aside * view.height * whole * (1 - width)) / 2 };
  const used = usedSensor(view.sensor, whole);
  const sensor = { widthMm: used.widthMm * width, heightMm: used.heightMm * height };
  const across = view.shift[0] * view.sensor.widthMm + (aside * (used.widthMm - sensor.widthMm)) / 2;
  const shift: [number, number] = [across / sensor.widthMm, (view.shift[1] * view.sensor.heightMm) / sensor.heightMm];
  return { view: { ...view, sensor, shift }, right: 0 };
}
