import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BoxGeometry, Matrix4 } from 'three';
import { cameWith, transformPart, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { cornerArea } from '../../geometry/index.ts';
import { Seams } from './seams.ts';
import { subdivide } from './subdivide.ts';

const box = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): ScenePart =>
  partOf(new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2));

const closeSeams = (parts: readonly ScenePart[]) => new Seams(parts).close(parts);

const area = ({ positions, indices }: ScenePart) => {
  let sum = 0;
  for (let k = 0; k < indices.length; k += 3)
    sum += cornerArea(positions, 3 * indices[k]!, 3 * indices[k + 1]!, 3 * indices[k + 2]!);
  return sum;
};

/** Edges that no two faces of one side share: only these can gape. By their vertices. */
function openEdges({ indices }: ScenePart): [number, number][] {
  const next = (i: number) => indices[i % 3 === 2 ? i - 2 : i + 1]!;
  const all = new Set([...indices].map((v, i) => `${v} ${next(i)}`));
  return [...indices].flatMap((v, i): [number, number][] => (all.has(`${next(i)} ${v}`) ? [] : [[v, next(i)]]));
}

/** Corners of any part's sides that lie within an edge of one: by trying all of them. */
function gaping(parts: readonly ScenePart[]): number {
  const sides = parts.map((part) => ({ p: part.positions, edges: openEdges(part) }));
  const corners = sides.flatMap(({ p, edges }) =>
    [...new Set(edges.flat())].map((v) => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!] as const),
  );
  let count = 0;
  for (const { p, edges } of sides)
    for (const [a, b] of edges) {
      const way = [0, 1, 2].map((k) => p[3 * b + k]! - p[3 * a + k]!);
      const square = way.reduce((sum, value) => sum + value * value, 0);
      for (const corner of corners) {
        const to = corner.map((value, k) => value - p[3 * a + k]!);
        const t = to.reduce((sum, value, k) => sum + value * way[k]!, 0) / square;
        if (t < 0.002 || t > 0.998) continue;
        if (Math.hypot(...to.map((value, k) => value - t * way[k]!)) < 5e-5) count += 1;
      }
    }
  return count;
}

/** A light that says where it is: along a line it changes evenly. */
const litByPlace = (part: ScenePart): ScenePart => ({
  ...part,
  light: { ambient: part.positions.slice(), sun: part.positions.filter((_, i) => i % 3 === 0) },
});

/** The piers, the parapet and the lintel of a window, as many writers make them: boxes beside each other. */
const wall = [
  box(0, 0, 0, 2, 2.7, 0.3),
  box(2, 0, 0, 3.1, 0.9, 0.3),
  box(2, 2.1, 0, 3.1, 2.7, 0.3),
  box(3.1, 0, 0, 5, 2.7, 0.3),
];

describe('seams between parts', () => {
  test('a wall of boxes gapes where edges pass corners, and does no longer; its surfaces and its light stay', () => {
    const before = wall.map((part) => litByPlace(subdivide(part, 0.7)));
    expect(gaping(before)).toBeGreaterThan(10);
    const after = closeSeams(before);
    expect(gaping(after)).toBe(0);
    after.forEach((part, i) => {
      expect(area(part)).toBeCloseTo(area(before[i]!), 5);
      part.light!.ambient.forEach((value, k) => expect(value).toBeCloseTo(part.positions[k]!, 4));
      part.light!.sun.forEach((value, v) => expect(value).toBeCloseTo(part.positions[3 * v]!, 4));
      expect(cameWith(part)).toBe(cameWith(before[i]!));
    });
  });

  test('where two pieces of a wall meet they have one light, but none through a sheet between them', () => {
    const lit = (part: ScenePart, value: number) => ({
      ...part,
      light: {
        ambient: new Float32Array(part.positions.length).fill(value),
        sun: new Float32Array(part.positions.length / 3),
      },
    });
    const meeting = (one: number, two: number) =>
      closeSeams([lit(wall[0]!, one), lit(wall[1]!, two)]).map(({ positions: p, normals: n, light }) =>
        [...light!.sun.keys()]
          .filter((v) => Math.abs(p[3 * v]! - 2) < 1e-4 && p[3 * v + 1]! < 0.91 && n[3 * v + 2]! > 0.9)
          .map((v) => light!.ambient[3 * v]!),
      );
    for (const values of meeting(1, 2)) {
      expect(values.length).toBeGreaterThan(1);
      for (const value of values) expect(value).toBeCloseTo(1.5, 6);
    }
    const [dark, bright] = meeting(1, 3);
    expect([...new Set(dark)]).toEqual([1]);
    expect([...new Set(bright)]).toEqual([3]);
  });

  test('what meets nothing else is left as it is', () => {
    const alone = [wall[0]!, box(9, 0, 0, 10, 1, 1)];
    expect(closeSeams(alone)).toEqual(alone);
  });

  test('no seam of boxes in a row gapes, however they are turned, moved and cut', () => {
    const size = fc.integer({ min: 2, max: 12 }).map((value) => value / 4);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size, size, size), { minLength: 2, maxLength: 4 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.integer({ min: -40, max: 40 }),
        fc.constantFrom(0.5, 0.8, 1.3),
        (sizes, angle, far, edge) => {
          const place = new Matrix4().makeRotationY(angle).setPosition(far, far / 7, -far / 3);
          let x = 0;
          const parts = sizes.map(([w, h, d]) => {
            const part = box(x, 0, 0, (x += w), h, d);
            transformPart(part, place);
            return subdivide(part, edge);
          });
          const after = closeSeams(parts);
          expect(gaping(after)).toBe(0);
          after.forEach((part, i) => expect(area(part)).toBeCloseTo(area(parts[i]!), 3));
        },
      ),
      { numRuns: 40 },
    );
  });
});
