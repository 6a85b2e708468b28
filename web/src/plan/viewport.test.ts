import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { around, barLength, fitArea, panBy, toPlan, zoomAt, grown, isLost, isShown } from './viewport.ts';

describe('the plan on the screen', () => {
  test('zooming keeps the point under the pointer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 800 }),
        fc.integer({ min: 0, max: 600 }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        (px, py, factor) => {
          const view = { x: 3, z: -7, scale: 40 };
          const before = toPlan(view, 800, 600, px, py);
          const after = toPlan(zoomAt(view, 800, 600, px, py, factor), 800, 600, px, py);
          expect(after[0]).toBeCloseTo(before[0], 6);
          expect(after[1]).toBeCloseTo(before[1], 6);
        },
      ),
    );
  });

  test('a ring of three centimetres is brought into view as what it is, not with metres around it', () => {
    const area = (size: number) => ({ minX: 0, minZ: 0, maxX: size, maxZ: size });
    expect(around(area(0.03), area(0.02))).toBeCloseTo(0.009, 9);
    // In a house, a corner of a path has its surroundings with it.
    expect(around(area(0), area(20))).toBe(4);
  });

  test('an area fits whole', () => {
    const view = fitArea({ minX: 0, minZ: 0, maxX: 24, maxZ: 12 }, 600, 400);
    const [x0, z0] = toPlan(view, 600, 400, 0, 0);
    const [x1, z1] = toPlan(view, 600, 400, 600, 400);
    expect(x0).toBeLessThan(0);
    expect(z0).toBeLessThan(0);
    expect(x1).toBeGreaterThan(24);
    expect(z1).toBeGreaterThan(12);
  });

  test('dragging takes the plan along', () => {
    expect(panBy({ x: 0, z: 0, scale: 50 }, 100, -50)).toEqual({ x: -2, z: 1, scale: 50 });
  });

  test.each([
    [20, 5],
    [100, 1],
    [3, 20],
    [400, 0.2],
  ])('at %i px a metre the scale bar shows %f m', (scale, metres) => expect(barLength(scale)).toBeCloseTo(metres, 6));
});

test('an area is shown when all of it is on the pane', () => {
  const area = { minX: 0, minZ: 0, maxX: 8, maxZ: 4 };
  const view = fitArea(area, 800, 600);
  expect(isShown(area, view, 800, 600)).toBe(true);
  expect(isShown(grown(area, 40), view, 800, 600)).toBe(false);
  expect(isShown({ ...area, minX: -60, maxX: -50 }, view, 800, 600)).toBe(false);
  expect(isShown(grown(area, 40), fitArea(grown(area, 40), 800, 600), 800, 600)).toBe(true);
});

test('what is shown as a speck is as good as not shown; a place has no size to be seen', () => {
  const view = fitArea({ minX: 0, maxX: 200, minZ: 0, maxZ: 100 }, 800, 600);
  expect(isLost({ minX: 90, maxX: 94, minZ: 40, maxZ: 43 }, view, 800, 600)).toBe(true);
  expect(isLost({ minX: 60, maxX: 120, minZ: 40, maxZ: 43 }, view, 800, 600)).toBe(false);
  expect(isLost({ minX: 90, maxX: 90, minZ: 40, maxZ: 40 }, view, 800, 600)).toBe(false);
});
