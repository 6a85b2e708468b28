import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, SphereGeometry, TorusGeometry, type BufferGeometry } from 'three';
import { randomFrom } from '../random.fixture.ts';
import { outlineOf } from './outline.ts';

/** Corners as models bring them: three of their own for every triangle. */
const corners = (shape: BufferGeometry) =>
  shape.toNonIndexed().getAttribute('position').array as Float32Array<ArrayBuffer>;
/** How far the points reach in a direction. */
const reach = (points: Float32Array, [x, y, z]: readonly number[]) => {
  let most = -Infinity;
  for (let o = 0; o < points.length; o += 3)
    most = Math.max(most, x! * points[o]! + y! * points[o + 1]! + z! * points[o + 2]!);
  return most;
};

describe('the outline of a thing', () => {
  test('a box has its eight corners, in one piece or in six', () => {
    const box = corners(new BoxGeometry(2, 3, 4).rotateX(0.4).translate(100, 0, -50));
    const sides = Array.from({ length: 6 }, (_, i) => box.slice(18 * i, 18 * (i + 1)));
    const sorted = (points: Float32Array) =>
      Array.from({ length: points.length / 3 }, (_, i) => [...points.subarray(3 * i, 3 * i + 3)].join(' ')).sort();
    expect(sorted(outlineOf([box]))).toHaveLength(8);
    expect(sorted(outlineOf(sides))).toEqual(sorted(outlineOf([box])));
    expect(outlineOf([])).toHaveLength(0);
  });

  test.each([
    ['a ball', new SphereGeometry(1, 60, 40)],
    ['a ring', new TorusGeometry(0.8, 0.2, 24, 60)],
  ])('%s is held by its outline to a hundredth of its size, whichever way one looks', (_, shape) => {
    const all = corners(shape);
    const outline = outlineOf([all]);
    expect(outline.length).toBeLessThan(all.length / 10);
    const random = randomFrom(7);
    for (let n = 0; n < 200; n += 1) {
      const [y, turn] = [2 * random() - 1, 2 * Math.PI * random()];
      const flat = Math.sqrt(1 - y * y);
      const way = [flat * Math.cos(turn), y, flat * Math.sin(turn)];
      expect(reach(all, way) - reach(outline, way)).toBeLessThan(0.02);
    }
  });
});
