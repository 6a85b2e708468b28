import { expect, test } from '@jest/globals';
import type { Survey } from '@eskovan/core/survey';
import { exampleWalk } from '../../testing/studio.tsx';
import { storeyOfPlaces } from './show-move.ts';

const storeys = [-0.02, 0.51, 3.74].map((elevation) => ({ elevation })) as Survey['storeys'];
const path = (...heights: number[]) => {
  const { path: made } = exampleWalk(heights.map((_, i) => [i, 0] as const));
  return made.nodes.map((node, i) => ({ ...node, y: heights[i]! }));
};

test('a path belongs to the storey that most of its nodes were put on', () => {
  expect(storeyOfPlaces(path(0, 0.51, 0.51, 3.74), storeys)).toBe(1);
  expect(storeyOfPlaces(path(0, 0.1, 3), storeys)).toBe(0);
  expect(storeyOfPlaces(path(9), storeys)).toBe(2);
  expect(storeyOfPlaces(path(), storeys)).toBe(-1);
  expect(storeyOfPlaces(path(1), [])).toBe(-1);
});
