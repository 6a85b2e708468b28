import { describe, expect, test } from '@jest/globals';
import type { SceneModel } from '../format/index.ts';
import { box } from '../move/floor-scenes.fixture.ts';
import { OUTSIDE, surveyModel } from './index.ts';
import { SolidBodies } from './solid-bodies.ts';
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
    // Of the ground, not of what is under eaves.
    expect(storeys[0]!.area).toBeGreaterThan(100);
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

/** A pyramid roof, closed, over a square of 12 m. */
const pyramid = (x: number, z: number, eaves: number): number[] => {
  const corner = (k: number): [number, number, number] => [
    x + [-6, 6, 6, -6][k % 4]!,
    eaves,
    z + [-6, -6, 6, 6][k % 4]!,
  ];
  const sides = [0, 1, 2, 3].flatMap((k) => [...corner(k + 1), ...corner(k), x, eaves + 5, z]);
  return [...sides, ...corner(0), ...corner(1), ...corner(2), ...corner(0), ...corner(2), ...corner(3)];
};

test('solid houses on level ground have no rooms under their roofs, nor in them; one with rooms beside them keeps its own', () => {
  const blocks = [-60, 20, 60].flatMap((x) => [box(x, x + 12, -2, 7, 20, 32), pyramid(x + 6, 26, 7)]);
  const [ground, ...more] = storeysOf(siteOf(0, ...blocks));
  expect(more).toEqual([]);
  expect(ground!.rooms).toEqual([]);
  const inside = storeysOf(siteOf(0, ...blocks, house(0.5))).filter(({ name }) => name !== OUTSIDE);
  expect(inside.map(({ elevation, rooms }) => [elevation, rooms.length])).toEqual([[0.5, 1]]);
});

describe('what is solid', () => {
  const block = box(0, 8, -1, 6, 0, 10);
  const turned = (soup: readonly number[]) =>
    soup.map((_, i) => soup[9 * Math.floor(i / 9) + (8 - (i % 9)) - (2 - 2 * (i % 3))]!);
  const solid = (...built: readonly number[][]) => SolidBodies.of(siteOf(0, ...built));

  test('a closed block is solid as far as it reaches, and what is over, under and beside it is not', () => {
    const found = solid(block)!;
    expect(found.contains(4, 3, 5)).toBe(true);
    expect(found.contains(0.01, -0.99, 9.99)).toBe(true);
    // On the seam of two triangles, too.
    expect(found.contains(4, 5.9, 5)).toBe(true);
    for (const [x, y, z] of [
      [4, 6.01, 5],
      [4, -1.01, 5],
      [8.01, 3, 5],
    ] as const)
      expect(found.contains(x, y, z)).toBe(false);
  });

  test('one of two materials is closed by both together', () => {
    const site = siteOf(0, block.slice(0, 54), block.slice(54));
    const parts = site.parts.map((part) => (part.name.startsWith('Built') ? { ...part, name: 'Block' } : part));
    expect(SolidBodies.of({ ...site, parts })!.contains(4, 3, 5)).toBe(true);
  });

  test('one that lacks a face, one seen from inside, walls about a room, and land are not', () => {
    expect(solid(block.slice(9))).toBeNull();
    expect(solid(turned(block))).toBeNull();
    expect(solid(house(0))).toBeNull();
    expect(solid(box(-90, 90, -12, -1, -90, 90))).toBeNull();
  });
});
