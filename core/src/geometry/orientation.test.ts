import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Euler, Matrix4, Quaternion, Vector3 } from 'three';
import { randomFrom } from '../random.fixture.ts';
import { anglesOf, forwardOf, orientationFromAxes, orientationOf, slerp } from './index.ts';

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

test('an orientation from where a camera looks and what is up agrees with three’s lookAt, however it is turned', () => {
  const rnd = randomFrom(17);
  const vec = (): [number, number, number] => [rnd() * 2 - 1, rnd() * 2 - 1, rnd() * 2 - 1];
  for (let i = 0; i < 500; i += 1) {
    const [ahead, up] = [vec(), vec()];
    const theirs = new Quaternion().setFromRotationMatrix(
      new Matrix4().lookAt(new Vector3(), new Vector3(...ahead), new Vector3(...up)),
    );
    const ours = new Quaternion(...orientationFromAxes(ahead, up));
    expect(Math.abs(theirs.dot(ours))).toBeCloseTo(1, 9);
  }
  // Straight down with up along it: as if it were tilted down from −Z.
  const down = anglesOf(orientationFromAxes([0, -1, 0], [0, 1, 0]));
  expect([down.pan, down.tilt]).toEqual([expect.closeTo(0, 6), expect.closeTo(-Math.PI / 2, 6)]);
});
