import { describe, expect, test } from '@jest/globals';
import {
  BoxGeometry,
  CylinderGeometry,
  PlaneGeometry,
  TubeGeometry,
  CatmullRomCurve3,
  Vector3,
  type BufferGeometry,
} from 'three';
import type { Vec3 } from '../document/index.ts';
import { edgeLineAt } from './edge-line.ts';

/** As three makes it: every face with corners of its own. */
const surfaceOf = (geometry: BufferGeometry, [x, y, z]: Vec3 = [0, 0, 0]) => {
  const made = geometry.clone().translate(x, y, z);
  return {
    positions: Float32Array.from(made.getAttribute('position').array),
    indices: Uint32Array.from(made.getIndex()!.array),
  };
};
const lengthOf = ({ points, closed }: { points: readonly Vec3[]; closed: boolean }) =>
  points.reduce((sum, p, i) => {
    const before = points[i - 1] ?? (closed ? points.at(-1)! : p);
    return sum + Math.hypot(...p.map((value, k) => value - before[k]!));
  }, 0);

describe('the line of edges at a place', () => {
  test('of a box: the one edge that is nearest, from corner to corner', () => {
    const line = edgeLineAt([surfaceOf(new BoxGeometry(4, 1, 2))], [0.3, 0.6, 1.1])!;
    expect(line.closed).toBe(false);
    expect(lengthOf(line)).toBeCloseTo(4, 6);
    for (const [, y, z] of line.points) expect([y, z]).toEqual([0.5, 1]);
    // However finely its faces are cut.
    const fine = edgeLineAt([surfaceOf(new BoxGeometry(4, 1, 2, 7, 3, 5))], [0.3, 0.6, 1.1])!;
    expect(fine.points).toHaveLength(8);
    expect(lengthOf(fine)).toBeCloseTo(4, 5);
  });

  test('of a round table: its rim, closed', () => {
    const line = edgeLineAt([surfaceOf(new CylinderGeometry(1.2, 1.2, 0.05, 48))], [1.3, 0.025, 0])!;
    expect(line.closed).toBe(true);
    expect(line.points).toHaveLength(48);
    // A regular polygon of 48 sides.
    expect(lengthOf(line)).toBeCloseTo(48 * 2 * 1.2 * Math.sin(Math.PI / 48), 4);
    for (const [, y] of line.points) expect(y).toBeCloseTo(0.025, 5);
  });

  test('of a winding rail: all of one of its edges, not across its end', () => {
    const way = new CatmullRomCurve3([
      new Vector3(0, 0, 0),
      new Vector3(10, 0, 3),
      new Vector3(18, 1, -4),
      new Vector3(30, 1, 0),
    ]);
    // Four sides, open at both ends: an edge of a rail of 10 cm.
    const line = edgeLineAt([surfaceOf(new TubeGeometry(way, 200, 0.1, 4))], [10, 0.1, 3])!;
    expect(line.closed).toBe(false);
    expect(line.points).toHaveLength(201);
    expect(lengthOf(line)).toBeGreaterThan(way.getLength() * 0.99);
    expect(lengthOf(line)).toBeLessThan(way.getLength() * 1.01);
  });

  test('of a sheet with two sides: its border, not the seams between its faces; of several, the nearest', () => {
    const sheet = surfaceOf(new PlaneGeometry(2, 2, 4, 4));
    const back = { ...sheet, indices: Uint32Array.from(sheet.indices).reverse() };
    const line = edgeLineAt([sheet, back], [0.1, 0.9, 0.2])!;
    expect(lengthOf(line)).toBeCloseTo(2, 6);
    for (const [, y] of line.points) expect(y).toBe(1);
    const other = edgeLineAt([sheet, surfaceOf(new BoxGeometry(1, 1, 1), [5, 0, 0])], [5.6, 0.55, 0])!;
    for (const [x] of other.points) expect(x).toBe(5.5);
  });

  test('a ball bends everywhere a little, and nowhere enough; nothing has no edge', () => {
    expect(edgeLineAt([], [0, 0, 0])).toBeNull();
    expect(edgeLineAt([{ positions: new Float32Array(9), indices: new Uint32Array([0, 1, 2]) }], [0, 0, 0])).toBeNull();
    // A thing of 3 cm.
    const small = edgeLineAt([surfaceOf(new BoxGeometry(0.03, 0.03, 0.03), [0.5, 0, 0.25])], [0.5, 0.016, 0.266])!;
    expect(lengthOf(small)).toBeCloseTo(0.03, 5);
  });
});
