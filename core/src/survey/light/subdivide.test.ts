import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ScenePart } from '../../format/index.ts';
import { subdivide, subdividedCount } from './subdivide.ts';

function part(corners: readonly number[]): ScenePart {
  return {
    name: 'part',
    material: 0,
    positions: Float32Array.from(corners),
    normals: Float32Array.from(corners, (_, i) => (i % 3 === 1 ? 1 : 0)),
    uvs: Float32Array.from({ length: (corners.length / 3) * 2 }, (_, i) => i),
    light: null,
    indices: Uint32Array.from({ length: corners.length / 3 }, (_, i) => i),
  };
}

function* triangles({ positions: p, indices }: ScenePart) {
  for (let k = 0; k < indices.length; k += 3)
    yield [0, 1, 2].map((c) => [0, 1, 2].map((axis) => p[3 * indices[k + c]! + axis]!)) as [
      number[],
      number[],
      number[],
    ];
}
const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((value, k) => value - b[k]!));
const area = (p: ScenePart) => {
  let sum = 0;
  for (const [a, b, c] of triangles(p)) {
    const [x, y, z] = [distance(a, b), distance(b, c), distance(c, a)];
    const half = (x + y + z) / 2;
    sum += Math.sqrt(Math.max(0, half * (half - x) * (half - y) * (half - z)));
  }
  return sum;
};
const coordinate = fc.integer({ min: -100, max: 100 }).map((n) => n / 10);
const anyTriangle = fc.array(coordinate, { minLength: 9, maxLength: 9 });

describe('cutting triangles for light', () => {
  test('keeps the area, and no wide triangle has an edge longer than wanted', () => {
    fc.assert(
      fc.property(anyTriangle, (corners) => {
        const whole = part(corners);
        const fine = subdivide(whole, 1);
        expect(area(fine)).toBeCloseTo(area(whole), 2);
        const longest = [...triangles(fine)].map(([a, b, c]) =>
          Math.max(distance(a, b), distance(b, c), distance(c, a)),
        );
        expect(longest.reduce((most, one) => Math.max(most, one), 0)).toBeLessThanOrEqual(3.5 + 1e-3);
        for (const values of [fine.normals, fine.uvs!]) expect(values.every(Number.isFinite)).toBe(true);
      }),
    );
  });

  test('what roundings of a millionth say does not change how it is cut', () => {
    // Sides of 2.8 m halve to the wanted 0.7 m exactly, and two of them are equally long.
    const exact = [0, 0, 0, 2.8, 0, 0, 0, 0, 2.8];
    const cut = (by: number) => subdivide(part(exact.map((value, i) => value * (1 + by * (i % 4)))), 0.7).indices;
    expect(Array.from(cut(1e-6))).toEqual(Array.from(cut(0)));
    expect(Array.from(cut(-1e-6))).toEqual(Array.from(cut(0)));
    expect(cut(1e-2).length).not.toBe(cut(0).length);
  });

  test('neighbours cut their common edge at the same points: no cracks', () => {
    const square = part([0, 0, 0, 0, 0, 8, 8, 0, 8, 0, 0, 0, 8, 0, 8, 8, 0, 0]);
    const fine = subdivide(square, 1);
    const onDiagonal = (from: number, to: number) => {
      const places = new Set<string>();
      for (let k = from; k < to; k += 1) {
        const v = fine.indices[k]! * 3;
        const [x, z] = [fine.positions[v]!, fine.positions[v + 2]!];
        if (Math.abs(x - z) < 1e-4) places.add(x.toFixed(3));
      }
      return [...places].sort();
    };
    const half = fine.indices.length / 2;
    expect(onDiagonal(0, half)).toEqual(onDiagonal(half, fine.indices.length));
  });

  test('a narrow one beside a wide one has all points of their common edge: no pinholes', () => {
    // Around a common edge from (0, 0) to (0, 9): wide to the left, a sliver to the right, corners of their own.
    const both = part([0, 0, 0, 0, 0, 9, -6, 0, 4, 0, 0, 0, 0.12, 0, 5, 0, 0, 9]);
    const fine = subdivide(both, 0.7);
    const pointsOf = (side: 1 | -1) => {
      const points = new Set<string>();
      for (const corners of triangles(fine)) {
        if (!corners.some(([x]) => x! * side > 1e-6)) continue;
        for (const [x, , z] of corners) if (Math.abs(x!) < 1e-6) points.add(z!.toFixed(4));
      }
      return [...points].sort();
    };
    expect(pointsOf(1)).toEqual(pointsOf(-1));
    expect(pointsOf(1).length).toBeGreaterThan(13);
    // Apart from the edge the sliver stays coarse.
    expect(fine.indices.length / 3).toBeLessThan(
      2 * (subdivide(part([0, 0, 0, 0, 0, 9, -6, 0, 4]), 0.7).indices.length / 3),
    );
  });

  test('what is small enough stays as it is; a landscape is cut coarser than a room', () => {
    const small = part([0, 0, 0, 0, 0, 0.5, 0.5, 0, 0]);
    expect(subdivide(small, 1).indices).toHaveLength(3);
    const room = part([0, 0, 0, 0, 0, 20, 20, 0, 0]);
    const land = part([0, 0, 0, 0, 0, 600, 600, 0, 0]);
    expect(subdivide(land, 1).indices.length).toBeLessThan(10 * subdivide(room, 1).indices.length);
  });

  test('the estimate is of the right size', () => {
    fc.assert(
      fc.property(anyTriangle, (corners) => {
        const made = subdivide(part(corners), 1).indices.length / 3;
        const estimate = subdividedCount(part(corners), 1);
        expect(estimate).toBeLessThan(8 * made + 4);
        expect(made).toBeLessThan(8 * estimate + 8);
      }),
      // A needle that once came to 243 where 22 were expected.
      { examples: [[[6.5, 0, 0, -9.5, 0, -0.1, -9.5, 0, -0.5]]] },
    );
  });
});
