import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Path } from '../document/index.ts';
import { beginningAt, mirrored, movedAside, PlanCurve, straightenedBetween, turned } from './index.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const flat = () => 0;
const pathOf = (points: readonly (readonly [number, number])[], kind: 'smooth' | 'corner', closed = false): Path => ({
  nodes: points.map(([x, z], n) => ({ id: id(n), x, y: 0, z, kind, radius: 0.5 })),
  closed,
});
const places = ({ nodes }: Path) => nodes.map(({ x, z }) => [x, z]);
const anyPath = fc
  .record({
    points: fc.array(
      fc.tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true })),
      { minLength: 3, maxLength: 8 },
    ),
    kind: fc.constantFrom<'smooth' | 'corner'>('smooth', 'corner'),
    closed: fc.boolean(),
  })
  .map(({ points, kind, closed }) => pathOf(points, kind, closed));

describe('a whole path', () => {
  test('aside of a circle runs a circle of another radius', () => {
    const ring = Array.from({ length: 16 }, (_, k) => {
      const angle = (2 * Math.PI * k) / 16;
      return [5 * Math.cos(angle), 5 * Math.sin(angle)] as const;
    });
    // Towards +Z by +X: from above that is clockwise, so the right side is the inner one.
    const inner = movedAside(pathOf(ring, 'smooth', true), 1, flat);
    for (const { x, z } of inner.nodes) expect(Math.hypot(x, z)).toBeCloseTo(4, 2);
    expect(new PlanCurve(inner).length).toBeCloseTo(2 * Math.PI * 4, 1);
  });

  test('aside of corners keeps its legs parallel, as far away as was wanted', () => {
    const aside = movedAside(
      pathOf(
        [
          [0, 0],
          [0, -10],
          [10, -10],
          [14, -6],
        ],
        'corner',
      ),
      0.6,
      flat,
    );
    // To the north, to the right of it is east; then to the east, to the right of it is south.
    expect(places(aside).slice(0, 2)).toEqual(
      [
        [0.6, 0],
        [0.6, -9.4],
      ].map((place) => place.map((value) => expect.closeTo(value, 9))),
    );
    expect(aside.nodes[2]!.z).toBeCloseTo(-9.4, 9);
    // The last leg goes at 45°: its line is 0.6 m from the old one.
    const { x, z } = aside.nodes[3]!;
    expect(Math.abs((x - 10 - (z + 10)) / Math.SQRT2)).toBeCloseTo(0.6, 9);
  });

  test('mirrored twice, turned there and back: as it was', () => {
    fc.assert(
      fc.property(anyPath, fc.double({ min: -3, max: 3, noNaN: true }), (path, angle) => {
        const same = (made: Path) =>
          made.nodes.forEach(({ x, z }, i) => {
            expect(Math.hypot(x - path.nodes[i]!.x, z - path.nodes[i]!.z)).toBeLessThan(1e-6);
          });
        same(turned(turned(path, angle, flat), -angle, flat));
        const [a, b] = [path.nodes[0]!, path.nodes.at(-1)!];
        fc.pre(Math.hypot(a.x - b.x, a.z - b.z) > 0.1);
        if (!path.closed) same(mirrored(mirrored(path, flat), flat));
        expect(new PlanCurve(turned(path, angle, flat)).length).toBeCloseTo(new PlanCurve(path).length, 5);
        expect(new PlanCurve(mirrored(path, flat)).length).toBeCloseTo(new PlanCurve(path).length, 5);
      }),
    );
  });

  test('straightened between two nodes: what lies between is on their line, all else stays', () => {
    const path = pathOf(
      [
        [0, 0],
        [2, 1],
        [4, -2],
        [6, 0],
        [8, 5],
      ],
      'smooth',
    );
    expect(places(straightenedBetween(path, [id(0), id(3)], flat))).toEqual([
      [0, 0],
      [2, 0],
      [4, 0],
      [6, 0],
      [8, 5],
    ]);
    expect(straightenedBetween(path, [id(1), id(2)], flat)).toEqual(path);
  });

  test('a closed path begins at another node and is the same line', () => {
    const path = pathOf(
      [
        [0, 0],
        [5, 0],
        [5, 5],
        [0, 4],
      ],
      'smooth',
      true,
    );
    const other = beginningAt(path, id(2));
    expect(other.nodes.map((node) => node.id)).toEqual([id(2), id(3), id(0), id(1)]);
    expect(new PlanCurve(other).length).toBeCloseTo(new PlanCurve(path).length, 6);
    expect(beginningAt({ ...path, closed: false }, id(2)).nodes[0]!.id).toBe(id(0));
  });

  test('nodes take the floor where they come to', () => {
    const onStep = turned(
      pathOf(
        [
          [0, 0],
          [4, 0],
        ],
        'smooth',
      ),
      Math.PI,
      (x) => (x > 2 ? 0.16 : null),
    );
    expect(onStep.nodes.map(({ y }) => y)).toEqual([0.16, 0]);
  });
});
