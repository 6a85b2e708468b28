import { PLAIN_MATERIAL } from '@eskovan/core/format';
import { DEFAULT_LENS, type Pose, type Vec3 } from '@eskovan/core/document';
import { lookingAt } from '@eskovan/core/framing';
import { anglesOf, forwardOf, orientationOf } from '@eskovan/core/geometry';
import { OUTSIDE, surveyModel, type Survey } from '@eskovan/core/survey';
import { describe, expect, test } from '@jest/globals';
import {
  approach,
  blendPoses,
  goRound,
  Ground,
  lookAround,
  poseDistance,
  rayThrough,
  slide,
  worthSeeing,
} from './eye.ts';

const start: Pose = { position: [1, 1.6, 2], orientation: orientationOf({ pan: 0.4, tilt: 0.1, roll: 0 }) };

/** Where a point lies in the picture: the direction to it in the eye's own axes. */
function seen(pose: Pose, point: readonly [number, number, number]): number[] {
  const [px, py, pz] = pose.position;
  const d = [point[0] - px, point[1] - py, point[2] - pz] as const;
  const length = Math.hypot(...d);
  const forward = forwardOf(pose.orientation);
  return [(d[0] * forward[0] + d[1] * forward[1] + d[2] * forward[2]) / length, length];
}

describe('the hands', () => {
  test('looking around stays in place and never turns over', () => {
    const turned = lookAround(start, 0.3, 9);
    expect(turned.position).toEqual(start.position);
    expect(anglesOf(turned.orientation).tilt).toBeLessThan(Math.PI / 2);
    expect(anglesOf(turned.orientation).pan).toBeCloseTo(0.7, 6);
  });

  test('going round a point keeps its distance and its place in the picture', () => {
    const centre: [number, number, number] = [0, 1, -3];
    const before = seen(start, centre);
    const after = seen(goRound(start, centre, 0.5, -0.2), centre);
    after.forEach((value, i) => expect(value).toBeCloseTo(before[i]!, 6));
  });

  test('sliding and approaching move as far as they say', () => {
    expect(poseDistance(start, slide(start, 2, 0, 0)).metres).toBeCloseTo(2, 6);
    expect(poseDistance(start, slide(start, 0, 1.5, 0)).metres).toBeCloseTo(1.5, 6);
    expect(poseDistance(start, approach(start, [0, 0, -1], 3)).metres).toBeCloseTo(3, 6);
    expect(poseDistance(start, lookAround(start, 0.1, 0)).degrees).toBeCloseTo(5.7, 0);
  });

  test('the ray through the middle looks ahead, the one at the edge half a view angle aside', () => {
    const level: Pose = { position: [0, 0, 0], orientation: [0, 0, 0, 1] };
    expect(rayThrough(level, DEFAULT_LENS, 16 / 9, 0, 0).direction).toEqual(
      [0, 0, -1].map((v) => expect.closeTo(v, 9)),
    );
    const [x, , z] = rayThrough(level, DEFAULT_LENS, 16 / 9, 1, 0).direction;
    expect(x / -z).toBeCloseTo(18 / 24, 6);
    const [, y, z2] = rayThrough(level, DEFAULT_LENS, 16 / 9, 0, 1).direction;
    expect(y / -z2).toBeCloseTo(10.125 / 24, 6);
  });

  test('what a lens cuts off is not pressed', () => {
    const eye: Pose = { position: [1, 2, 3], orientation: orientationOf({ pan: 0.3, tilt: -0.2, roll: 0 }) };
    const lens = { ...DEFAULT_LENS, nearCut: 2, farCut: 5 };
    const { from, direction, reach } = rayThrough(eye, lens, 16 / 9, 0.7, -0.4);
    const ahead = forwardOf(eye.orientation);
    const depth = (point: readonly number[]) =>
      point.reduce((sum, value, k) => sum + (value - eye.position[k]!) * ahead[k]!, 0);
    expect(depth(from)).toBeCloseTo(2, 9);
    expect(depth(from.map((value, k) => value + direction[k]! * reach))).toBeCloseTo(5, 9);
    expect(rayThrough(eye, DEFAULT_LENS, 1, 0, 0).reach).toBe(Infinity);
  });

  test('a flight starts and ends at its poses', () => {
    const end = lookingAt({ position: [4, 2, 0], orientation: [0, 0, 0, 1] }, [0, 0, 0]);
    expect(poseDistance(blendPoses(start, end, 0), start)).toEqual({
      metres: expect.closeTo(0, 6),
      degrees: expect.closeTo(0, 1),
    });
    expect(poseDistance(blendPoses(start, end, 1), end)).toEqual({
      metres: expect.closeTo(0, 6),
      degrees: expect.closeTo(0, 1),
    });
  });
});

describe('walking', () => {
  // A floor of 10 × 10 m with a block of 1 m in the middle, and a step of 16 cm along its east.
  const quad = (x0: number, x1: number, z0: number, z1: number, y: number) => [
    x0,
    y,
    z0,
    x0,
    y,
    z1,
    x1,
    y,
    z1,
    x0,
    y,
    z0,
    x1,
    y,
    z1,
    x1,
    y,
    z0,
  ];
  const wall = (x0: number, z0: number, x1: number, z1: number) => [
    x0,
    0,
    z0,
    x1,
    0,
    z1,
    x1,
    3,
    z1,
    x0,
    0,
    z0,
    x1,
    3,
    z1,
    x0,
    3,
    z0,
  ];
  const soup = Float32Array.from([
    ...quad(-5, 3, -5, 5, 0),
    ...quad(3, 5, -5, 5, 0.16),
    ...wall(-0.5, -0.5, 0.5, -0.5),
    ...wall(0.5, -0.5, 0.5, 0.5),
    ...wall(0.5, 0.5, -0.5, 0.5),
    ...wall(-0.5, 0.5, -0.5, -0.5),
  ]);
  const { survey, footing } = surveyModel(
    {
      parts: [
        {
          name: 'House',
          material: 0,
          positions: soup,
          normals: new Float32Array(soup.length),
          uvs: null,
          light: null,
          indices: Uint32Array.from({ length: soup.length / 3 }, (_, i) => i),
        },
      ],
      materials: [PLAIN_MATERIAL],
      textures: [],
    },
    { slope: 45 },
  );
  const ground = new Ground(footing.floors, survey);
  const north = orientationOf({ pan: 0, tilt: 0, roll: 0 });
  const walk = (from: Pose, forward: number, right: number, steps: number) => {
    let pose = from;
    for (let i = 0; i < steps; i += 1) pose = ground.walk(pose, forward / steps, right / steps, 1.6);
    return pose;
  };

  test('stops at a wall, and passes through it when told to', () => {
    const from = ground.standAt(0, 3, 0, 1.6, north);
    expect(walk(from, 6, 0, 120).position[2]).toBeGreaterThan(0.7);
    expect(ground.walk(from, 6, 0, 1.6, true).position[2]).toBeCloseTo(-3, 6);
  });

  test('climbs a step over a few paces and keeps its height over an edge', () => {
    const from = ground.standAt(2, -3, 0, 1.6, north);
    expect(from.position[1]).toBeCloseTo(1.6, 5);
    expect(walk(from, 0, 2, 60).position[1]).toBeCloseTo(1.76, 2);
    expect(walk(from, 4, 0, 60).position[1]).toBeCloseTo(1.6, 5);
  });

  test('stands where the picture was pressed: on a floor, or before a wall on the side it is seen from', () => {
    const eye: Pose = { position: [-3, 1.6, 3], orientation: orientationOf({ pan: 0.5, tilt: -0.3, roll: 0 }) };
    const onStep = ground.standOn([4, 0.16, 1], eye, 1.6)!;
    expect(onStep.position).toEqual([4, expect.closeTo(1.76, 5), 1]);
    expect(anglesOf(onStep.orientation)).toEqual({ pan: expect.closeTo(0.5, 9), tilt: expect.closeTo(0, 9), roll: 0 });
    const before = ground.standOn([-0.5, 1.2, 0], eye, 1.6)!;
    expect(before.position[0]).toBeLessThan(-0.6);
    expect(before.position[1]).toBeCloseTo(1.6, 5);
    expect(ground.standOn([40, 0, 40], eye, 1.6)).toBeNull();
  });

  test('sits on what was pressed from above, and on nothing else', () => {
    const eye: Pose = { position: [-3, 1.6, 3], orientation: north };
    expect(ground.sitOn([4, 0.16, 1], eye)!.position[1]).toBeCloseTo(0.16 + 0.77, 5);
    expect(ground.sitOn([-0.5, 1.2, 0], eye)).toBeNull();
    // The front of the step: one sits on it, not in it.
    const onFront = ground.sitOn([3, 0.08, 0], eye)!;
    expect(onFront.position[0]).toBeGreaterThan(3.05);
    expect(onFront.position[1]).toBeCloseTo(0.16 + 0.77, 5);
  });

  test('a press on the plan stands on the storey’s floor, and on the step where that is walked on', () => {
    expect(ground.standIn(0, -3, 3, 1.6, north).position[1]).toBeCloseTo(1.6, 5);
    expect(ground.standIn(0, 4, 3, 1.6, north).position[1]).toBeCloseTo(1.76, 5);
    // Beyond all floors: as high as the storey.
    expect(ground.standIn(0, 40, 3, 1.6, north).position[1]).toBeCloseTo(1.6, 5);
  });
});

test('first looks are at the house in its landscape, and at all of what stands on no ground', () => {
  const room = { id: 'r', name: 'Room' } as never;
  const storey = (name: string, extent: readonly number[], rooms: readonly unknown[]) =>
    ({ name, elevation: 0, extent, rooms }) as unknown as Survey['storeys'][number];
  const all = { min: [-100, 0, -100] as Vec3, max: [100, 60, 100] as Vec3 };
  const house = storey('Ground', [0, 0, 10, 8], [room]);
  const outside = storey(OUTSIDE, [-100, -100, 100, 100], []);
  expect(worthSeeing(all, { storeys: [house, outside] }).max[0]).toBe(10);
  expect(worthSeeing(all, { storeys: [house] })).toBe(all);
  expect(worthSeeing(all, { storeys: [storey('Ground', [0, 0, 10, 8], []), outside] })).toBe(all);
  expect(worthSeeing(all, null)).toBe(all);
});
