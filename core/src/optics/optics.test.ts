import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  circleOfConfusionMm,
  depthOfField,
  focalLengthFor,
  SENSORS,
  usedSensor,
  viewAngle,
  viewAngles,
} from './index.ts';

const degrees = (radians: number) => (radians * 180) / Math.PI;
const fullFrame = { widthMm: 36, heightMm: 24 };
const lens = (focalLengthMm: number, shift: [number, number] = [0, 0]) => ({
  focalLengthMm,
  sensor: fullFrame,
  shift,
});

describe('view angles', () => {
  // Source: tables of angles of view printed by lens makers for the 135 format (diagonal, rounded to 1°),
  // the same in every photographic handbook; the closed form is ISO 517 / common practice.
  test.each([
    [14, 114],
    [20, 94],
    [24, 84],
    [28, 75],
    [35, 63],
    [50, 47],
    [85, 28.5],
    [135, 18],
    [200, 12.4],
  ])('%i mm sees a diagonal of %f°', (focal, wanted) => {
    expect(Math.abs(degrees(viewAngles(lens(focal)).diagonal) - wanted)).toBeLessThan(0.6);
  });

  test('50 mm on 36 × 24: 39.60° × 26.99°, diagonal 46.79°', () => {
    const angles = viewAngles(lens(50));
    expect(degrees(angles.horizontal)).toBeCloseTo(39.6, 2);
    expect(degrees(angles.vertical)).toBeCloseTo(26.99, 2);
    expect(degrees(angles.diagonal)).toBeCloseTo(46.79, 2);
  });

  test('every sensor of the table has an angle that its focal length gives back', () => {
    for (const sensor of SENSORS) {
      fc.assert(
        fc.property(fc.double({ min: 4, max: 800, noNaN: true }), (focal) => {
          const back = focalLengthFor(viewAngle(sensor.widthMm, focal), sensor.widthMm);
          expect(Math.abs(back - focal)).toBeLessThan(1e-6 * focal);
        }),
      );
    }
  });

  test('a wide picture uses the width of the sensor, a tall one its height', () => {
    expect(usedSensor(fullFrame, 16 / 9)).toEqual({ widthMm: 36, heightMm: 20.25 });
    expect(usedSensor(fullFrame, 9 / 16)).toEqual({ widthMm: 13.5, heightMm: 24 });
  });
});

describe('depth of field', () => {
  // Source: the thin-lens formulas of any photographic handbook; worked value 50 mm f/2.8 at 5 m, c = 0.030 mm.
  test('50 mm f/2.8 at 5 m is sharp from 4.29 m to 6.00 m', () => {
    const depth = depthOfField(50, 2.8, 5, 0.03);
    expect(depth.hyperfocal).toBeCloseTo(29.81, 2);
    expect(depth.near).toBeCloseTo(4.29, 2);
    expect(depth.far).toBeCloseTo(6.0, 2);
  });

  test('beyond the hyperfocal distance everything far is sharp', () => {
    const { hyperfocal } = depthOfField(24, 8, 1, 0.03);
    expect(depthOfField(24, 8, hyperfocal * 1.01, 0.03).far).toBe(Infinity);
  });

  test('the circle of confusion of 36 × 24 is 0.030 mm', () => {
    expect(circleOfConfusionMm(fullFrame)).toBeCloseTo(0.03, 4);
  });
});
