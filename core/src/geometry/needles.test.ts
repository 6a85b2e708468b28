import { describe, expect, test } from '@jest/globals';
import { randomFrom } from '../random.fixture.ts';
import { withoutNeedles } from './index.ts';

type Point = readonly [number, number];

/** Narrowest height over longest side of each triangle, in plan. */
function widths(points: readonly Point[], indices: ArrayLike<number>): number[] {
  return Array.from({ length: indices.length / 3 }, (_, t) => {
    const [a, b, c] = [0, 1, 2].map((k) => points[indices[3 * t + k]!]!) as [Point, Point, Point];
    const longest = Math.max(
      ...[
        [a, b],
        [b, c],
        [c, a],
      ].map(([p, q]) => Math.hypot(p![0] - q![0], p![1] - q![1])),
    );
    return areaOf(a, b, c) / longest / longest;
  });
}

/** Twice the area, positive counter-clockwise. */
const areaOf = (a: Point, b: Point, c: Point) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** A surface in the plane of x and y. */
const flat = (points: readonly Point[], height: (i: number) => number = () => 0) => ({
  positions: Float32Array.from(points.flatMap(([x, y], i) => [x, y, height(i)])),
  normals: Float32Array.from(points.flatMap(() => [0, 0, 1])),
});

/** A strip of 5 × 0.02 m whose short end has more corners, each joined to one at the far end. */
const strip: Point[] = [
  [0, 0],
  [5, 0],
  [5, 0.02],
  [0.02, 0.02],
  [0, 0.02],
  [0, 0.013],
  [0, 0.008],
  [0, 0.004],
];
const fan = Uint32Array.from([1, 2, 3, 1, 3, 4, 1, 4, 5, 1, 5, 6, 1, 6, 7, 1, 7, 0]);

describe('a surface without needles', () => {
  test('has as many triangles over the same area, none of them turned round, and wider ones', () => {
    const { positions, normals } = flat(strip);
    const mended = withoutNeedles(positions, normals, fan);
    const [before, after] = [widths(strip, fan), widths(strip, mended)];
    expect(mended).toHaveLength(fan.length);
    for (const width of after) expect(width).toBeGreaterThan(0);
    const total = (indices: ArrayLike<number>) =>
      Array.from({ length: indices.length / 3 }, (_, t) =>
        areaOf(...([0, 1, 2].map((k) => strip[indices[3 * t + k]!]!) as [Point, Point, Point])),
      ).reduce((sum, area) => sum + area, 0);
    expect(total(mended)).toBeCloseTo(total(fan), 9);
    const narrow = (all: readonly number[]) => all.filter((width) => width < 0.003).length;
    expect(narrow(before)).toBe(5);
    expect(narrow(after)).toBeLessThanOrEqual(1);
  });

  test('over random points in strips: its sides stay, and the least angle is no smaller', () => {
    const random = randomFrom(11);
    for (let n = 0; n < 60; n += 1) {
      const count = 3 + Math.floor(random() * 8);
      const high = 0.005 + 0.05 * random();
      const points: Point[] = [
        [0, 0],
        [4, 0],
        [4, high],
      ];
      for (let i = count; i >= 0; i -= 1) points.push([(4 * i) / (count + 1), high]);
      const indices = Uint32Array.from(
        points.slice(2).flatMap((_, i) => (i + 3 < points.length ? [1, i + 2, i + 3] : [])),
      );
      const closing = Uint32Array.from([...indices, 1, points.length - 1, 0]);
      const { positions, normals } = flat(points);
      const mended = withoutNeedles(positions, normals, closing);
      expect(sidesOf(mended)).toEqual(sidesOf(closing));
      expect(Math.min(...widths(points, mended))).toBeGreaterThanOrEqual(Math.min(...widths(points, closing)) - 1e-9);
    }
  });

  test('is left alone where it bends, is smooth, or has no needles', () => {
    const { positions } = flat(strip, (i) => (i === 3 ? 0.01 : 0));
    const bent = withoutNeedles(positions, flat(strip).normals, fan);
    // What is beside the corner that sticks out keeps its sides.
    expect([...bent.slice(0, 3)]).toEqual([1, 2, 3]);
    const turned = Float32Array.from(strip.flatMap((_, i) => [Math.sin(i), 0, Math.cos(i)]));
    expect(withoutNeedles(flat(strip).positions, turned, fan)).toBe(fan);
    const square: Point[] = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ];
    const halves = Uint32Array.from([0, 1, 2, 0, 2, 3]);
    expect(withoutNeedles(flat(square).positions, flat(square).normals, halves)).toBe(halves);
  });
});

/** Sides that one triangle alone has: the outline. */
function sidesOf(indices: Uint32Array): string[] {
  const all = new Set<string>();
  for (let i = 0; i < indices.length; i += 1) all.add(`${indices[i]} ${indices[i - (i % 3) + ((i + 1) % 3)]}`);
  return [...all].filter((side) => !all.has(side.split(' ').reverse().join(' '))).sort();
}
