import { describe, expect, test } from '@jest/globals';
import type { Pose } from '@eskovan/core/document';
import { orientationOf } from '@eskovan/core/geometry';
import type { Ground } from './eye.ts';
import { gone, presumed, wheelWay } from './going.ts';

const ahead: Pose = { position: [0, 1.6, 0], orientation: orientationOf({ pan: 0, tilt: 0, roll: 0 }) };
/** A ground that walks as it is told. */
const groundOf = (size: number, isProduct: boolean, height: number): Ground =>
  ({
    size,
    isProduct,
    heightUnder: () => height,
    walk: (pose: Pose, forward: number) => ({ ...pose, position: [0, pose.position[1], -forward] }),
  }) as unknown as Ground;
const wayOf = (ground: Ground | null, fast = false) =>
  -gone({ ground, eyeHeight: 1.6 }, ahead, [1, 0], 1, fast).position[2];

describe('going by keys', () => {
  test('on foot at a walk, and at a run; high over hills as much faster as one is higher', () => {
    expect(wayOf(groundOf(30, false, 1.6))).toBeCloseTo(1.5, 9);
    expect(wayOf(groundOf(30, false, 1.6), true)).toBeCloseTo(4, 9);
    // Who crouches, or stands over nothing, is no slower.
    for (const height of [0, 1]) expect(wayOf(groundOf(30, false, height))).toBeCloseTo(1.5, 9);
    expect(wayOf(groundOf(5000, false, 320))).toBeCloseTo(300, 9);
    expect(wayOf(null)).toBeCloseTo(1.5, 9);
  });

  test('past half of a product in a second, on no floor', () => {
    const ring = groundOf(0.03, true, 0.01);
    expect(wayOf(ring)).toBeCloseTo(0.015, 9);
    const down: Pose = { ...ahead, orientation: orientationOf({ pan: 0, tilt: -Math.PI / 2 + 0.02, roll: 0 }) };
    expect(gone({ ground: ring, eyeHeight: 1.6 }, down, [1, 0], 1).position[1]).toBeCloseTo(1.6 - 0.015, 5);
    expect(gone({ ground: ring, eyeHeight: 1.6, tempo: 0.5 }, ahead, [0, 1], 1).position[0]).toBeCloseTo(0.0075, 9);
  });
});

describe('the wheel', () => {
  const house = groundOf(30, false, 1.6);
  const ring = groundOf(0.03, true, 0.01);

  test('leads by parts of the way to what is under the pointer: never past it in one turn, and there in a few', () => {
    for (const [ground, away] of [
      [house, 6],
      [house, 4000],
      [ring, 0.08],
      [null, 3],
    ] as const) {
      let left = away;
      for (let notch = 0; notch < 12; notch += 1) {
        const way = wheelWay(-100, left, ground);
        expect(way).toBeGreaterThan(0);
        expect(way).toBeLessThan(Math.max(left, 0.2 * presumed(ground)));
        left -= way;
      }
      expect(left).toBeLessThan(0.3 * away);
      // The other way leads back.
      expect(wheelWay(100, away, ground)).toBeCloseTo(-wheelWay(-100, away, ground), 12);
    }
  });

  test('what is reached is gone through, a little at a time', () => {
    expect(wheelWay(-100, 0, house)).toBeCloseTo(0.1, 9);
    expect(wheelWay(-100, -2, house)).toBeCloseTo(0.1, 9);
    expect(wheelWay(-100, 0, ring)).toBeCloseTo(0.00045, 9);
  });
});
