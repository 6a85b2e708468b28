import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Lens, StillCamera, Vec3 } from '../document/index.ts';
import { anglesOf, orientationOf, toDegrees, toRadians } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { convergence, edgeStretch, straightened } from './index.ts';

const LENS: Lens = { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] };
const ASPECT = 16 / 9;
const poseAt = (pan: number, tilt: number, roll = 0) => ({
  position: [3, 1.6, -2] as Vec3,
  orientation: orientationOf({ pan, tilt, roll }),
});
const seen = ({ pose, lens }: StillCamera) =>
  new Projection(throughLens(lens), ASPECT, pose.position, pose.orientation);

describe('straight verticals', () => {
  test('every upright line is upright in the picture, to 1e-9, and the middle shows what it did', () => {
    const angle = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
    fc.assert(
      fc.property(angle(3), angle(0.75), angle(0.3), angle(8), (pan, tilt, roll, aside) => {
        const pose = poseAt(pan, tilt, roll);
        const made = straightened({ pose, lens: LENS })!;
        const projection = seen(made);
        const ahead = (along: number, right: number, height: number): Vec3 => [
          pose.position[0] - along * Math.sin(pan) + right * Math.cos(pan),
          pose.position[1] + height,
          pose.position[2] - along * Math.cos(pan) - right * Math.sin(pan),
        ];
        const [foot, head] = [-1.6, 9].map((height) => projection.project(ahead(10, aside, height)));
        expect(Math.abs(foot!.x - head!.x)).toBeLessThan(1e-9);
        const middle = seen({ pose, lens: LENS }).ray(0, 0).direction;
        const there = projection.project(middle.map((value, k) => pose.position[k]! + value) as Vec3);
        expect(Math.hypot(there.x, there.y)).toBeLessThan(1e-9);
      }),
    );
  });

  // By hand: looking up by 15° with 24 mm lifts the middle by 24 · tan 15° = 6.43 mm, of 24 mm.
  test('15° up with 24 mm is a rise of 6.43 mm', () => {
    const { pose, lens } = straightened({ pose: poseAt(0.4, toRadians(15)), lens: LENS })!;
    expect(lens.shift[1] * lens.sensor.heightMm).toBeCloseTo(6.4308, 4);
    expect(lens.shift[0]).toBeCloseTo(0, 12);
    expect(anglesOf(pose.orientation)).toEqual({
      pan: expect.closeTo(0.4, 9),
      tilt: expect.closeTo(0, 9),
      roll: expect.closeTo(0, 9),
    });
    // Done twice it is what it was.
    expect(straightened({ pose, lens })!.lens.shift[1]).toBeCloseTo(lens.shift[1], 12);
  });

  test('straight up, or farther than a lens is shifted, is not done', () => {
    expect(straightened({ pose: poseAt(0, toRadians(89)), lens: LENS })).toBeNull();
    expect(straightened({ pose: poseAt(0, toRadians(50)), lens: { ...LENS, focalLengthMm: 85 } })).toBeNull();
  });
});

describe('how verticals lean', () => {
  test('none of a level camera, whatever its shift; as much up as down; a roll is no leaning', () => {
    const lean = (pan: number, tilt: number, roll = 0, lens = LENS) =>
      convergence(seen({ pose: poseAt(pan, tilt, roll), lens }), ASPECT);
    expect(lean(1, 0, 0, { ...LENS, shift: [0.2, 0.6] })).toBeCloseTo(0, 9);
    expect(lean(0, 0.2)).toBeGreaterThan(0);
    expect(lean(0, -0.2)).toBeCloseTo(-lean(0, 0.2), 9);
    expect(Math.abs(lean(0, 0, 0.1))).toBeLessThan(1e-9);
  });

  // By hand: of a camera that looks up by t, a vertical at the edge, u = 18 / 24 off the axis, leans by atan(u · tan t):
  // its vanishing point is 1 / tan t above the middle.
  test('10° up with 24 mm: 2 · atan(0.75 · tan 10°) = 15.07°', () => {
    const found = toDegrees(convergence(seen({ pose: poseAt(0, toRadians(10)), lens: LENS }), ASPECT));
    expect(found).toBeCloseTo(15.07, 2);
  });
});

// A ball at θ off the axis is drawn 1 / cos θ times as long as wide (any handbook of perspective); by hand:
// 18 mm on a sensor 36 mm wide has its edge at 45°.
test('a ball at the edge of 18 mm on 36 mm is √2 times as long as wide; of parallel rays it is round', () => {
  const wide = throughLens({ ...LENS, focalLengthMm: 18 });
  expect(edgeStretch(new Projection(wide, ASPECT))).toBeCloseTo(Math.SQRT2 - 1, 9);
  expect(edgeStretch(new Projection({ kind: 'parallel', height: 4 }, ASPECT))).toBe(0);
  // Against the picture of a small ball itself.
  const projection = new Projection(wide, ASPECT);
  const [radius, distance] = [1e-3, 10];
  const centre: Vec3 = [distance, 0, -distance];
  const across = (d: Vec3) => {
    const [a, b] = [-1, 1].map((sign) => projection.project(centre.map((v, k) => v + sign * radius * d[k]!) as Vec3));
    return Math.hypot((b!.x - a!.x) * ASPECT, b!.y - a!.y);
  };
  const half = Math.SQRT1_2;
  expect(across([half, 0, half]) / across([0, 1, 0])).toBeCloseTo(Math.SQRT2, 4);
});
