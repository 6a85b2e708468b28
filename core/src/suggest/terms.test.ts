import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS } from '../document/index.ts';
import { nearestTurn } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { at, AZIMUTHS, FAR, panOf, TILTS, type Fan } from './look-round.ts';
import { aheadOf, depthOf, lightOf, scoreOf, sidesOf, subjectOf, WEIGHTS, within } from './terms.ts';

/** What somebody sees, by direction: radians to the left of −Z. */
function fanOf(see: (pan: number, row: number) => { distance: number; open?: boolean; facing?: number }): Fan {
  const count = AZIMUTHS * TILTS.length;
  const fan: Fan = {
    from: [0, 1.6, 0],
    distance: new Float64Array(count),
    open: new Uint8Array(count),
    facing: new Float64Array(count).fill(NaN),
  };
  for (let azimuth = 0; azimuth < AZIMUTHS; azimuth += 1)
    TILTS.forEach((_, row) => {
      const { distance, open = false, facing = NaN } = see(nearestTurn(panOf(azimuth)), row);
      const o = at(azimuth, row);
      fan.distance[o] = distance;
      fan.open[o] = open ? 1 : 0;
      fan.facing[o] = facing;
    });
  return fan;
}
const HALF = 0.6;

describe('the terms of a standing point, one by one', () => {
  test('depth: what a quarter of the picture is farther than; the rest does not count', () => {
    const corridor = fanOf((pan) => ({ distance: Math.abs(pan) < 0.2 ? 12 : 1.5 }));
    expect(depthOf(corridor, 0, HALF)).toEqual({ metres: 12, value: 1 });
    expect(depthOf(corridor, Math.PI, HALF)).toEqual({ metres: 1.5, value: 1.5 / 8 });
    expect(
      depthOf(
        fanOf(() => ({ distance: 4 })),
        1,
        HALF,
      ).value,
    ).toBe(0.5);
    const window = fanOf((pan) => (pan < 0 ? { distance: 25, open: true } : { distance: 4 }));
    expect(depthOf(window, 0, HALF)).toEqual({ metres: 4, value: 0.5 });
  });

  test('two sides: a corner shows two, a wall straight on one, walls of a corridor two', () => {
    const corner = fanOf((pan) => ({ distance: 4, facing: pan > 0 ? -Math.PI / 2 : Math.PI }));
    expect(sidesOf(corner, 0, HALF)).toBe(1);
    const wall = fanOf(() => ({ distance: 4, facing: Math.PI }));
    expect(sidesOf(wall, 0, HALF)).toBe(0);
    // The second side just begins to show.
    const little = fanOf((pan) => ({ distance: 4, facing: pan > 0.45 ? -Math.PI / 2 : Math.PI }));
    expect(sidesOf(little, 0, HALF)).toBeGreaterThan(0);
    expect(sidesOf(little, 0, HALF)).toBeLessThan(1);
  });

  test('light: none is dull, some is good, all burns out', () => {
    const out = (part: number) =>
      lightOf(
        fanOf((pan) => ({ distance: FAR, open: pan > HALF - 2 * HALF * part })),
        0,
        HALF,
      );
    expect(
      lightOf(
        fanOf(() => ({ distance: 3 })),
        0,
        HALF,
      ),
    ).toBe(0);
    expect(out(0.25)).toBe(1);
    expect(out(1)).toBe(0);
    expect(out(0.5)).toBeGreaterThan(0);
    expect(out(0.5)).toBeLessThan(1);
  });

  test('room before it: the nearest thing in the middle of the picture', () => {
    const fan = fanOf((pan) => ({ distance: Math.abs(pan) < 0.05 ? 0.9 : 5 }));
    expect(aheadOf(fan, 0)).toBe(0.9);
    expect(aheadOf(fan, 1)).toBe(5);
  });

  test('subject: whole, near the middle, of a good size, with nothing before it; the larger of two', () => {
    const projection = new Projection(throughLens(DEFAULT_LENS), 16 / 9, [0, 1.6, 0]);
    const thing = (name: string, x: number, z: number, size = 1) => ({
      name,
      bounds: { min: [x - size / 2, 1.1, z - size / 2], max: [x + size / 2, 1.1 + size, z + size / 2] } as {
        min: [number, number, number];
        max: [number, number, number];
      },
    });
    const free = fanOf(() => ({ distance: FAR }));
    const table = thing('Table', 0.3, -5);
    expect(subjectOf(free, projection, [table])).toEqual({ name: 'Table', value: expect.any(Number) });
    const value = subjectOf(free, projection, [table])!.value;
    expect(value).toBeGreaterThan(0.8);
    // At the side it is less of one, outside the picture none, behind the eye none.
    expect(subjectOf(free, projection, [thing('Table', 2.5, -5)])!.value).toBeLessThan(value);
    expect(subjectOf(free, projection, [thing('Table', 6, -5)])).toBeNull();
    expect(subjectOf(free, projection, [thing('Table', 0, 5)])).toBeNull();
    // A wall before it, or so far away that it is lost.
    expect(
      subjectOf(
        fanOf(() => ({ distance: 2 })),
        projection,
        [table],
      ),
    ).toBeNull();
    expect(subjectOf(free, projection, [thing('Table', 0, -26, 0.6)])).toBeNull();
    expect(subjectOf(free, projection, [thing('Cup', 0, -5, 0.3), table])!.name).toBe('Table');
  });

  test('weights are parts of one, and each term only helps', () => {
    expect(Object.values(WEIGHTS).reduce((sum, weight) => sum + weight, 0)).toBeCloseTo(1, 12);
    const none = { depth: 0, 'two sides': 0, light: 0, subject: 0, 'room before it': 0 };
    expect(scoreOf(none)).toBe(0);
    for (const term of Object.keys(WEIGHTS) as (keyof typeof WEIGHTS)[])
      expect(scoreOf({ ...none, [term]: 1 })).toBe(WEIGHTS[term]);
  });

  test('directions within an angle, also across the seam of the circle', () => {
    expect(within(Math.PI, 0.3, [0]).length).toBe(within(0, 0.3, [0]).length);
    expect(within(0, 0.3, [0]).length).toBe(5);
  });
});
