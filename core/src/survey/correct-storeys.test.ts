import { describe, expect, test } from '@jest/globals';
import { BoxGeometry } from 'three';
import { storeyChangeSchema, type StoreyChange } from '../document/index.ts';
import { correctStoreys } from './correct-storeys.ts';
import { surveyModel } from './index.ts';
import { modelOf, soupOf } from './soup.fixture.ts';

const box = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => [
  ...soupOf(new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2)),
];
/** Two floors under a roof, and a sill at 1.5 m that only a cut below it does not meet. */
const house = modelOf(
  Float32Array.from([
    ...box(0, -0.2, 0, 10, 0, 6),
    ...box(0, 2.8, 0, 10, 3, 6),
    ...box(0, 6, 0, 10, 6.2, 6),
    ...box(0, 0, 0, 0.2, 1.5, 6),
  ]),
);
const storeysOf = (changes: readonly StoreyChange[] = []) =>
  surveyModel(house, { slope: 45 }, { changes }).survey.storeys;
const heights = (changes?: readonly StoreyChange[]) => storeysOf(changes).map(({ elevation }) => elevation);

describe('corrected storeys', () => {
  test('are found at their floors where nobody says otherwise', () => {
    expect(heights()).toEqual([0, 3]);
  });

  test('move to the height that was given, and are cut there', () => {
    const [ground, upper] = storeysOf([{ found: 0.1, elevation: 0.45 }]);
    expect([ground!.elevation, upper!.elevation]).toEqual([0.45, 3]);
    // The wall of 1.5 m is cut 1.2 m above the floor where that is at 0, and not where it is at 0.45.
    expect(storeysOf()[0]!.plan.cut.length).toBeGreaterThan(0);
    expect(ground!.plan.cut).toEqual([]);
  });

  test('are left out, and added where no floor was found', () => {
    expect(heights([{ found: 3, elevation: null }])).toEqual([0]);
    const added = storeysOf([{ found: null, elevation: 1.4 }]);
    expect(added.map(({ elevation, name }) => [elevation, name])).toEqual([
      [0, 'Ground'],
      [1.4, 'Added storey'],
      [3, 'Level 1'],
    ]);
    // It is looked for wherever the house is.
    expect(added[1]!.extent).toEqual([0, 0, 10, 6].map((side) => expect.closeTo(side, 0)));
  });

  test('wait where their storey is not found any more', () => {
    expect(heights([{ found: 9, elevation: 9.5 }])).toEqual([0, 3]);
    expect(heights([{ found: 0.4, elevation: 0.6 }])).toEqual([0, 3]);
  });

  test('leave a plan even where all of them are left out', () => {
    const storeys = storeysOf([
      { found: 0, elevation: null },
      { found: 3, elevation: null },
    ]);
    expect(storeys.map(({ name }) => name)).toEqual(['Ground']);
  });

  test('stay in order whatever is done to them', () => {
    const found = [0, 3, 6].map((elevation) => ({
      name: 'Level',
      elevation,
      area: 1,
      extent: [0, 0, 1, 1] as [number, number, number, number],
    }));
    const bounds = { min: [0, 0, 0] as [number, number, number], max: [1, 9, 1] as [number, number, number] };
    const corrected = correctStoreys(
      found,
      [
        { found: 0, elevation: 7 },
        { found: null, elevation: -2 },
      ],
      bounds,
    );
    expect(corrected.map(({ elevation }) => elevation)).toEqual([-2, 3, 6, 7]);
  });

  test('are either found or added', () => {
    expect(storeyChangeSchema.safeParse({ found: null, elevation: null }).success).toBe(false);
    expect(storeyChangeSchema.safeParse({ found: 1, elevation: Infinity }).success).toBe(false);
  });
});
