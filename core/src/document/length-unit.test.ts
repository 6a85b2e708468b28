import { expect, test } from '@jest/globals';
import type { Bounds } from './model.ts';
import {
  eyesOver,
  LARGEST_PRODUCT,
  lengthNumber,
  lengthText,
  lengthUnitOf,
  METRES,
  MILLIMETRES,
  shownIn,
} from './length-unit.ts';

const cube = (side: number): Bounds => ({ min: [5, 0, -3], max: [5 + side, side, -3 + side] });

test('what is no larger than a product is said in millimetres, wherever it stands; nothing is in metres', () => {
  expect(lengthUnitOf(null)).toBe(METRES);
  expect(lengthUnitOf({ min: [512_340, 0, 6e6], max: [512_340.02, 0.03, 6e6 + 0.006] })).toBe(MILLIMETRES);
  expect([0.01, LARGEST_PRODUCT - 1e-9].map((side) => lengthUnitOf(cube(side)).name)).toEqual(['mm', 'mm']);
  expect(lengthUnitOf(cube(LARGEST_PRODUCT + 0.01))).toBe(METRES);
});

test('lengths are written in their unit; what rounds to nothing has no sign, and what never ends says so', () => {
  expect(lengthText(0.0234, MILLIMETRES)).toBe('23.4 mm');
  expect(lengthText(0.0234, METRES)).toBe('0.02 m');
  expect(lengthText(31.26, METRES, 1)).toBe('31.3 m');
  // Places after the point are those of metres.
  expect(lengthText(0.0312, MILLIMETRES, 0)).toBe('31.2 mm');
  expect(lengthNumber(-0.00001, MILLIMETRES)).toBe('0.0');
  expect(lengthNumber(-0.001, METRES)).toBe('0.00');
  expect(lengthNumber(Infinity, METRES)).toBe('∞');
});

test('units that lengths are part of are shown in it, and no others', () => {
  expect(['m', 'm/s', 'mm', '°/s', 'f/', 'stops'].map((unit) => shownIn(unit, MILLIMETRES))).toEqual([
    { unit: 'mm', times: 1000 },
    { unit: 'mm/s', times: 1000 },
    { unit: 'mm', times: 1 },
    { unit: '°/s', times: 1 },
    { unit: 'f/', times: 1 },
    { unit: 'stops', times: 1 },
  ]);
  expect(shownIn('m/s', METRES)).toEqual({ unit: 'm/s', times: 1 });
});

test('eyes are at the height of people in a building, and by a product as high as that is large', () => {
  expect(eyesOver(cube(8), 1.6)).toBe(1.6);
  expect(eyesOver(cube(0.02), 1.6)).toBeCloseTo(0.4 * 0.02 * Math.sqrt(3), 12);
});
