import { describe, expect, test } from '@jest/globals';
import { PerspectiveCamera } from 'three';
import { toDegrees } from '../geometry/index.ts';
import { circleOfConfusionMm, depthOfField } from './depth-of-field.ts';
import { SENSORS } from './sensors.ts';
import { viewAngle, viewAngles } from './view-angle.ts';

/** Focal lengths, and the horizontal, vertical and diagonal angles that makers of lenses print for 36 × 24 mm (from memory). */
const PRINTED = [
  [20, 84.0, 61.9, 94.5],
  [24, 73.7, 53.1, 84.1],
  [28, 65.5, 46.4, 75.4],
  [35, 54.4, 37.8, 63.4],
  [50, 39.6, 27.0, 46.8],
  [85, 23.9, 16.1, 28.6],
] as const;

/** Horizontal angles of cinematographers' tables: 24.89 mm of 35 mm film, 10.26 mm of 16 mm film (from memory). */
const FILM = [
  ['35 mm film, full aperture', 18, 69.3],
  ['35 mm film, full aperture', 25, 52.9],
  ['35 mm film, full aperture', 50, 28.0],
  ['16 mm film', 12, 46.3],
  ['16 mm film', 25, 23.2],
  ['16 mm film', 50, 11.7],
] as const;

const sensorOf = (name: string) => SENSORS.find((sensor) => sensor.name === name)!;

describe('view angles', () => {
  test.each(PRINTED)('%d mm on 36 × 24: %d° × %d°, %d° across', (focalLengthMm, across, upward, diagonal) => {
    const angles = viewAngles({ focalLengthMm, sensor: sensorOf('135 full frame'), shift: [0, 0] });
    expect(Math.abs(toDegrees(angles.horizontal) - across)).toBeLessThan(0.06);
    expect(Math.abs(toDegrees(angles.vertical) - upward)).toBeLessThan(0.06);
    expect(Math.abs(toDegrees(angles.diagonal) - diagonal)).toBeLessThan(0.1);
  });

  test.each(FILM)('%s, %d mm: %d°', (name, focal, across) => {
    expect(Math.abs(toDegrees(viewAngle(sensorOf(name).widthMm, focal)) - across)).toBeLessThan(0.06);
  });

  test('six focal lengths on three sensors are as three’s camera has them', () => {
    for (const sensor of SENSORS)
      for (const [focalLengthMm] of PRINTED) {
        const aspect = sensor.widthMm / sensor.heightMm;
        const camera = new PerspectiveCamera(50, aspect);
        camera.filmGauge = sensor.widthMm;
        camera.setFocalLength(focalLengthMm);
        const { vertical } = viewAngles({ focalLengthMm, sensor, shift: [0, 0] });
        expect(toDegrees(vertical)).toBeCloseTo(camera.getEffectiveFOV(), 9);
      }
  });
});

/** How wide a point at a distance is on the sensor, mm, by the thin lens alone: 1/f = 1/s + 1/v, similar triangles behind it. */
function blurMm(focalMm: number, fNumber: number, focusM: number, distanceM: number): number {
  const behind = (s: number) => (focalMm * s) / (s - focalMm);
  const [sharp, point] = [behind(1000 * focusM), distanceM === Infinity ? focalMm : behind(1000 * distanceM)];
  return ((focalMm / fNumber) * Math.abs(point - sharp)) / point;
}

describe('depth of field of four settings', () => {
  // Near and far as tables for c = 0.030 mm print them (from memory), and the blur at both by the thin lens.
  test.each([
    [50, 8, 3, 2.34, 4.19],
    [35, 5.6, 2, 1.58, 2.74],
    [85, 1.8, 3, 2.94, 3.07],
    [24, 11, 1, 0.64, 2.27],
  ])('%d mm at f/%d, focused at %d m: sharp from %d m to %d m', (focal, fNumber, focus, near, far) => {
    const depth = depthOfField(focal, fNumber, focus, 0.03);
    expect(Math.abs(depth.near - near)).toBeLessThan(0.006);
    expect(Math.abs(depth.far - far)).toBeLessThan(0.006);
    expect(blurMm(focal, fNumber, focus, depth.near)).toBeCloseTo(0.03, 9);
    expect(blurMm(focal, fNumber, focus, depth.far)).toBeCloseTo(0.03, 9);
  });

  test.each(SENSORS.map((sensor) => [sensor.name, sensor] as const))(
    'focused at the hyperfocal distance the sky is just sharp, and all from half of it: %s',
    (_, sensor) => {
      const circle = circleOfConfusionMm(sensor);
      const { hyperfocal } = depthOfField(35, 4, 1, circle);
      expect(blurMm(35, 4, hyperfocal, Infinity)).toBeCloseTo(circle, 9);
      const { near, far } = depthOfField(35, 4, hyperfocal, circle);
      expect(far).toBe(Infinity);
      expect(near).toBeCloseTo(hyperfocal / 2, 9);
    },
  );
});
