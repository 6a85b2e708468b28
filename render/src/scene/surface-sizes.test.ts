import { expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { surfaceSizes } from './surface-sizes.ts';

const sizesOf = (geometry: PlaneGeometry | BoxGeometry) =>
  surfaceSizes(geometry.getAttribute('position').array as Float32Array, Uint32Array.from(geometry.index!.array));

test('a wall is as large as it is, into however many triangles it was cut', () => {
  for (const pieces of [1, 7, 40]) {
    const sizes = sizesOf(new PlaneGeometry(8, 2, 2 * pieces, pieces));
    expect(sizes).toHaveLength(4 * pieces * pieces);
    for (const size of sizes) expect(size).toBeCloseTo(4, 6);
  }
});

test('what hangs together by its place alone, not by its vertices, is apart: the sides of a box', () => {
  // Six sides of 1 × 2, 2 × 3 and 1 × 3 metres, two triangles each.
  const sizes = [...sizesOf(new BoxGeometry(1, 2, 3))].map((size) => size ** 2).sort((a, b) => a - b);
  expect(sizes.map((area) => Math.round(area))).toEqual([2, 2, 2, 2, 3, 3, 3, 3, 6, 6, 6, 6]);
});
