import { expect, test } from '@jest/globals';
import type { SceneModel } from '../format/index.ts';
import { box } from '../move/floor-scenes.fixture.ts';
import { OUTSIDE, surveyModel } from './index.ts';
import { modelOf } from './soup.fixture.ts';

const SLOPE = { slope: 45 };

/** A hillside of 200 m that rises to the east, in squares of 4 m. @param rise per metre */
const hillside = (rise: number): number[] => {
  const out: number[] = [];
  const at = (x: number, z: number) => [x, rise * x, z];
  for (let x = -100; x < 100; x += 4)
    for (let z = -100; z < 100; z += 4)
      out.push(...at(x, z), ...at(x, z + 4), ...at(x + 4, z + 4), ...at(x, z), ...at(x + 4, z + 4), ...at(x + 4, z));
  return out;
};

const siteOf = (rise: number, ...built: readonly number[][]): SceneModel => {
  const land = modelOf(Float32Array.from(hillside(rise)));
  return {
    ...land,
    parts: [
      ...land.parts,
      ...built.map((soup, i) => ({ ...modelOf(Float32Array.from(soup)).parts[0]!, name: `Built ${i}` })),
    ],
  };
};
const storeysOf = (site: SceneModel) => surveyModel(site, SLOPE).survey.storeys;

/** A house of 12 × 8 m: slab, four walls and a roof. @param floor height of its floor, metres */
const house = (floor: number): number[] => [
  ...box(-6, 6, floor - 0.3, floor, -4, 4),
  ...box(-6, 6, floor + 2.7, floor + 3, -4, 4),
  ...box(-6, -5.8, floor, floor + 2.7, -4, 4),
  ...box(5.8, 6, floor, floor + 2.7, -4, 4),
  ...box(-6, 6, floor, floor + 2.7, -4, -3.8),
  ...box(-6, 6, floor, floor + 2.7, 3.8, 4),
];

test.each([0.15, 0.3, 0.6])(
  'solid blocks on a hillside of %d have no storeys, though the hill goes on inside them',
  (rise) => {
    const blocks = [-60, -10, 40].map((x) => box(x, x + 16, rise * x - 3, rise * (x + 16) + 9, -10, 12));
    const storeys = storeysOf(siteOf(rise, ...blocks));
    expect(storeys).toHaveLength(1);
    expect(storeys[0]!.rooms).toEqual([]);
  },
);

test('a house in a hillside has the storey of its slab, whether it stands on stilts or cuts into the hill', () => {
  for (const floor of [5, 0.6, -1.2]) {
    const storeys = storeysOf(siteOf(0.3, house(floor))).filter(({ name }) => name !== OUTSIDE);
    expect(storeys.map(({ elevation }) => elevation)).toEqual([floor]);
    expect(storeys[0]!.rooms).toHaveLength(1);
  }
});

test('a pavilion that stands on the level ground itself, without a slab, keeps it as its floor', () => {
  const roofed = house(0).slice(box(0, 1, 0, 1, 0, 1).length);
  const inside = storeysOf(siteOf(0, roofed)).filter(({ name }) => name !== OUTSIDE);
  expect(inside.map(({ elevation }) => elevation)).toEqual([0]);
  expect(inside[0]!.rooms).toHaveLength(1);
});
