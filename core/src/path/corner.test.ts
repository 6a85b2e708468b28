import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Path } from '../document/index.ts';
import { PlanCurve, roundedCorner, setCornerRadius } from './index.ts';

const id = (i: number) => `00000000-0000-4000-8000-00000000000${i}`;
const bent = (turn: number, radius: number): Path => ({
  closed: false,
  nodes: [
    [-10, 0],
    [0, 0],
    [10 * Math.cos(turn), 10 * Math.sin(turn)],
  ].map(([x, z], i) => ({ id: id(i), x: x!, y: 0, z: z!, kind: 'corner', radius })),
});

describe('a rounded corner', () => {
  test('a right angle rounded by 2 m begins 2 m from the corner', () => {
    expect(roundedCorner(bent(Math.PI / 2, 2), id(1))).toMatchObject({
      x: expect.closeTo(0, 9),
      z: expect.closeTo(2, 9),
      radiusPerMetre: expect.closeTo(1, 9),
    });
  });

  test('the place lies on the path, and pulled to a place along the leg it is rounded up to there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        fc.double({ min: 0.2, max: 4.5, noNaN: true }),
        (turn, radius, pulled) => {
          const path = bent(turn, radius);
          const corner = roundedCorner(path, id(1))!;
          const curve = new PlanCurve(path);
          const point = new Float64Array(2);
          curve.pointAt(curve.nearest(corner.x, corner.z).station, point);
          expect(Math.hypot(point[0]! - corner.x, point[1]! - corner.z)).toBeLessThan(0.02);
          const after = roundedCorner(setCornerRadius(path, id(1), pulled * corner.radiusPerMetre), id(1))!;
          expect(Math.hypot(after.x, after.z)).toBeCloseTo(pulled, 6);
        },
      ),
    );
  });

  test('who turns back goes there: near the node, the nearer the sharper the turn, and never less far for less of a turn', () => {
    const missed = (turn: number, radius: number) => {
      const curve = new PlanCurve(bent(turn, radius));
      const point = new Float64Array(2);
      curve.pointAt(curve.nearest(0, 0).station, point);
      return Math.hypot(point[0]!, point[1]!);
    };
    for (const radius of [0.3, 0.5, 1]) {
      // A right angle misses its node by (√2 − 1) radii.
      expect(missed(Math.PI / 2, radius)).toBeCloseTo((Math.SQRT2 - 1) * radius, 2);
      for (let turn = 2.2; turn < Math.PI; turn += 0.05) expect(missed(turn, radius)).toBeLessThan(1.3 * radius);
      expect(missed(Math.PI - 0.05, radius)).toBeLessThan(0.12 * radius);
      expect(missed(Math.PI, radius)).toBeLessThan(1e-6);
    }
  });

  test('smooth nodes, ends and straight lines have none', () => {
    const path = bent(1, 1);
    expect(roundedCorner(path, id(0))).toBeNull();
    expect(roundedCorner(bent(0.001, 1), id(1))).toBeNull();
    const smooth = { ...path, nodes: path.nodes.map((node) => ({ ...node, kind: 'smooth' as const })) };
    expect(roundedCorner(smooth, id(1))).toBeNull();
  });
});
