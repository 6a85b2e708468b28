import { expect, test } from '@jest/globals';
import type { Survey } from '@eskovan/core/survey';
import { exampleWalk } from '../../testing/studio.tsx';
import { storeyOfPath } from './show-move.ts';

const storeys = [-0.02, 0.51, 3.74].map((elevation) => ({ elevation })) as Survey['storeys'];
const path = (...heights: number[]) => {
  const { path: made } = exampleWalk(heights.map((_, i) => [i, 0] as const));
  return { ...made, nodes: made.nodes.map((node, i) => ({ ...node, y: heights[i]! })) };
};

test('a path belongs to the storey that most of its nodes were put on', () => {
  expect(storeyOfPath(path(0, 0.51, 0.51, 3.74), storeys)).toBe(1);
  expect(storeyOfPath(path(0, 0.1, 3), storeys)).toBe(0);
  expect(storeyOfPath(path(9), storeys)).toBe(2);
  expect(storeyOfPath(path(), storeys)).toBe(-1);
  expect(storeyOfPath(path(1), [])).toBe(-1);
});
