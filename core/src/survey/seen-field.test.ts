import { describe, expect, test } from '@jest/globals';
import { seenField } from './seen-field.ts';

/** Area of a polygon of pairs, by the shoelace formula. */
function areaOf(points: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < points.length; i += 2) {
    const n = (i + 2) % points.length;
    sum += points[i]! * points[n + 1]! - points[n]! * points[i + 1]!;
  }
  return Math.abs(sum) / 2;
}
const segments = (...lines: number[][]) => ({ segments: Float64Array.from(lines.flat()) });
const ahead = (half: number, reach: number) => ({ x: 0, z: 0, from: -half, to: half, reach });

describe('what an eye sees of the floor', () => {
  test('nothing in the way: a sector; all round: a disc', () => {
    expect(areaOf(seenField(segments(), ahead(0.5, 4)))).toBeCloseTo(0.5 * 16, 2);
    expect(areaOf(seenField(segments(), ahead(Math.PI, 3)))).toBeCloseTo(Math.PI * 9, 2);
  });

  test('a wall across ends it; one behind the eye and one beyond its reach do not', () => {
    const wall = segments([-9, -2, 9, -2], [-9, 1, 9, 1], [-9, -30, 9, -30]);
    // A triangle of height 2 and half width 2 · tan 0.5.
    expect(areaOf(seenField(wall, ahead(0.5, 8)))).toBeCloseTo(4 * Math.tan(0.5), 2);
  });

  test('a gap in a wall lets through what is seen through it, by similar triangles', () => {
    const door = segments([-9, -2, -0.5, -2], [0.5, -2, 9, -2], [-9, -6, 9, -6]);
    // Before the wall all of it, behind it what the gap of 1 m at 2 m shows up to 6 m: (3 + 1) / 2 · 4.
    // Sight lines are half a degree apart: at either jamb one may see or miss (6² − 2²) / 2 · 0.5°.
    expect(Math.abs(areaOf(seenField(door, ahead(0.5, 20))) - (4 * Math.tan(0.5) + 8))).toBeLessThan(0.15);
  });
});
