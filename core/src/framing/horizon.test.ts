import { describe, expect, test } from '@jest/globals';
import { PerspectiveCamera, Quaternion, Vector3 } from 'three';
import { DEFAULT_LENS, type Bounds, type StillCamera } from '../document/index.ts';
import { anglesOf, cornersOf, orientationOf, toRadians } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { headroomOf, horizonOf, withHeadroom, withHorizon } from './index.ts';

const ASPECT = 16 / 9;
const THING: Bounds = { min: [-1, 0, -9], max: [1, 2, -8] };
const camera = (tilt: number, roll = 0, pan = 0, shift: [number, number] = [0, 0]): StillCamera => ({
  pose: {
    position: [0, 1.6, 0],
    orientation: orientationOf({ pan: toRadians(pan), tilt: toRadians(tilt), roll: toRadians(roll) }),
  },
  lens: { ...DEFAULT_LENS, focalLengthMm: 24, shift },
});
const projectionOf = ({ pose, lens }: StillCamera) =>
  new Projection(throughLens(lens), ASPECT, pose.position, pose.orientation);
const tiltOf = ({ pose }: StillCamera) => anglesOf(pose.orientation).tilt;

/** The same camera by three. */
function byThree({ pose, lens }: StillCamera): PerspectiveCamera {
  const { left, right, bottom, top } = projectionOf({ pose, lens }).window;
  const made = new PerspectiveCamera();
  made.projectionMatrix.makePerspective(left, right, top, bottom, 1, 100_000);
  made.projectionMatrixInverse.copy(made.projectionMatrix).invert();
  made.position.set(...pose.position);
  made.quaternion.copy(new Quaternion(...pose.orientation));
  made.updateMatrixWorld();
  return made;
}

describe('the horizon', () => {
  test('is in the middle of a level picture, and leaves it by the tangent of the tilt', () => {
    expect(horizonOf(projectionOf(camera(0)))).toBeCloseTo(0.5, 12);
    // 24 mm, a picture 20.25 mm high: f · tan 10° below the middle.
    const below = (24 * Math.tan(toRadians(10))) / 20.25;
    expect(horizonOf(projectionOf(camera(10)))).toBeCloseTo(0.5 - below, 9);
    expect(horizonOf(projectionOf(camera(30)))!).toBeLessThan(0);
    expect(horizonOf(projectionOf(camera(90)))).toBeNull();
    const { pose, lens } = camera(0);
    expect(horizonOf(projectionOf({ pose, lens: { ...lens, parallel: 5 } }))).toBeNull();
  });

  test('is where three has a point far away at the height of the eye', () => {
    const random = randomFrom(5);
    for (let n = 0; n < 100; n += 1) {
      const one = camera(40 * (random() - 0.5), 30 * (random() - 0.5), 360 * random(), [
        0.2 * (random() - 0.5),
        0.3 * (random() - 0.5),
      ]);
      const horizon = horizonOf(projectionOf(one))!;
      // From the middle column of the picture at that height a ray goes level.
      const ray = new Vector3(0, 2 * horizon - 1, 0.5).unproject(byThree(one)).sub(new Vector3(...one.pose.position));
      expect(Math.abs(ray.normalize().y)).toBeLessThan(1e-9);
    }
  });

  test.each([0.2, 1 / 3, 0.5, 0.8])(
    'is put at %f of the height: by tilting, or by the lens of a level camera',
    (part) => {
      const tilted = withHorizon(camera(12, 4, 50), ASPECT, part)!;
      expect(horizonOf(projectionOf(tilted))).toBeCloseTo(part, 6);
      expect(anglesOf(tilted.pose.orientation)).toMatchObject({
        pan: expect.closeTo(toRadians(50), 6),
        roll: expect.closeTo(toRadians(4), 6),
      });
      const upright = withHorizon(camera(0, 0, 50, [0.1, 0.05]), ASPECT, part)!;
      expect(horizonOf(projectionOf(upright))).toBeCloseTo(part, 6);
      expect(tiltOf(upright)).toBeCloseTo(0, 9);
      expect(upright.lens.shift[0]).toBe(0.1);
    },
  );

  test('farther than a lens is shifted it is not put', () => {
    expect(withHorizon(camera(0, 0, 0, [0, 0.05]), ASPECT, 3)).toBeNull();
  });
});

describe('the room over a thing', () => {
  test('is what three leaves free over its highest corner', () => {
    const random = randomFrom(11);
    for (let n = 0; n < 50; n += 1) {
      const one = camera(20 * (random() - 0.5), 10 * (random() - 0.5), 30 * (random() - 0.5));
      const highest = Math.max(...cornersOf(THING).map((corner) => new Vector3(...corner).project(byThree(one)).y));
      expect(headroomOf(projectionOf(one), THING)).toBeCloseTo((1 - highest) / 2, 9);
    }
    expect(headroomOf(projectionOf(camera(0, 0, 180)), THING)).toBeNull();
  });

  test.each([0.05, 0.1, 0.25, -0.1])('is made %f of the height', (part) => {
    for (const one of [camera(3), camera(-8, 5, 10), camera(0, 0, 0, [0, 0.1])]) {
      const made = withHeadroom(one, ASPECT, part, THING)!;
      expect(headroomOf(projectionOf(made), THING)).toBeCloseTo(part, 6);
      if (one.lens.shift[1] !== 0) expect(tiltOf(made)).toBeCloseTo(0, 9);
    }
  });

  test('cannot be made over what is behind', () => {
    expect(withHeadroom(camera(0, 0, 180), ASPECT, 0.1, THING)).toBeNull();
  });
});
