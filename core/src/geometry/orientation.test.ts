import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Euler, Quaternion, Vector3 } from 'three';
import { anglesOf, forwardOf, orientationOf, slerp } from './index.ts';

const angle = (limit: number) => fc.double({ min: -limit, max: limit, noNaN: true });
const anyAngles = fc.record({ pan: angle(3.1), tilt: angle(1.5), roll: angle(1.5) });

describe('orientation', () => {
  test('agrees with the reference library’s Euler order YXZ', () => {
    fc.assert(
      fc.property(anyAngles, (a) => {
        const ours = orientationOf(a);
        const theirs = new Quaternion().setFromEuler(new Euler(a.tilt, a.pan, a.roll, 'YXZ'));
        ours.forEach((value, i) => expect(value).toBeCloseTo(theirs.toArray()[i]!, 10));
        const ahead = new Vector3(0, 0, -1).applyQuaternion(theirs).toArray();
        forwardOf(ours).forEach((value, i) => expect(value).toBeCloseTo(ahead[i]!, 10));
      }),
    );
  });

  test('angles → orientation → angles is the identity', () => {
    fc.assert(
      fc.property(anyAngles, (a) => {
        const back = anglesOf(orientationOf(a));
        expect(back.pan).toBeCloseTo(a.pan, 6);
        expect(back.tilt).toBeCloseTo(a.tilt, 6);
        expect(back.roll).toBeCloseTo(a.roll, 6);
      }),
    );
  });

  test('slerp agrees with the reference library and takes the shorter way', () => {
    fc.assert(
      fc.property(anyAngles, anyAngles, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, part) => {
        const from = new Quaternion(...orientationOf(a));
        const to = new Quaternion(...orientationOf(b));
        const ours = new Quaternion(...slerp(orientationOf(a), orientationOf(b), part));
        expect(Math.abs(ours.dot(from.slerp(to, part)))).toBeGreaterThan(1 - 1e-6);
      }),
    );
  });
});
