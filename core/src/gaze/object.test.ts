import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Object3D, PerspectiveCamera, Vector3 } from 'three';
import { DEFAULT_LENS, gazeSchema, type GazeAtObject, type Vec3, type Walk } from '../document/index.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk } from '../move/index.ts';
import { aimMove, findTarget, gazeAt, type NamedPart } from './index.ts';

const MODEL = '00000000-0000-4000-8000-000000000001';
const lamp = (x: number, y: number, z: number): NamedPart => ({
  model: MODEL,
  name: 'Hall / Lamp',
  bounds: { min: [x - 0.2, y - 0.3, z - 0.2], max: [x + 0.2, y + 0.3, z + 0.2] },
});
/** The lower end of the lamp. */
const gaze: GazeAtObject = {
  kind: 'object',
  model: MODEL,
  name: 'Hall / Lamp',
  point: [4, 2, -3],
  centre: [4, 2.3, -3],
};
const walkAlong = (points: readonly (readonly [number, number])[], at: GazeAtObject): Walk => ({
  kind: 'walk',
  path: {
    closed: false,
    nodes: points.map(([x, z], i) => ({
      id: `00000000-0000-4000-8000-00000000010${i}`,
      x,
      y: 0,
      z,
      kind: 'smooth',
      radius: 0.5,
    })),
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: at,
  lens: DEFAULT_LENS,
});
const nowhere = new Footing(new Float32Array(0));
const coordinate = fc.double({ min: -20, max: 20, noNaN: true });

describe('finding a target again', () => {
  test('where it was: the very point that was chosen', () => {
    expect(findTarget(gaze, [lamp(4, 2.3, -3)])).toEqual([4, 2, -3]);
  });

  test('where it has gone: the same place on it', () => {
    const found = findTarget(gaze, [{ ...lamp(0, 0, 0), name: 'Other' }, lamp(10, 3.3, 5)])!;
    [10, 3, 5].forEach((value, k) => expect(found[k]).toBeCloseTo(value, 9));
  });

  test('not there: it says so, and the walk goes on looking where it was', () => {
    const others = [
      { ...lamp(10, 3, 5), name: 'Hall / Lamp 2' },
      { ...lamp(10, 3, 5), model: '00000000-0000-4000-8000-000000000002' },
    ];
    expect(findTarget(gaze, others)).toBeNull();
    const walk = walkAlong(
      [
        [0, 0],
        [8, 0],
      ],
      gaze,
    );
    expect(aimMove(walk, others)).toBe(walk);
  });

  test('aiming twice is aiming once', () => {
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
        const parts = [lamp(x, y, z)];
        const once = aimMove(
          walkAlong(
            [
              [0, 0],
              [8, 0],
            ],
            gaze,
          ),
          parts,
        );
        const twice = aimMove(once, parts);
        const [a, b] = [once.gaze as GazeAtObject, twice.gaze as GazeAtObject];
        a.point.forEach((value, k) => expect(b.point[k]).toBeCloseTo(value, 9));
        expect(findTarget(a, parts)!.every((value, k) => Math.abs(value - a.point[k]!) < 1e-9)).toBe(true);
      }),
    );
  });

  test('only a named part of a model can be looked at', () => {
    expect(gazeSchema.safeParse(gaze).success).toBe(true);
    expect(gazeSchema.safeParse({ ...gaze, name: '' }).success).toBe(false);
    expect(gazeSchema.safeParse({ ...gaze, point: [1, 2] }).success).toBe(false);
    expect(gazeSchema.safeParse({ kind: 'object', distance: 2 }).success).toBe(false);
  });
});

describe('looking at an object', () => {
  // Reference: the projection of three.js with the camera that a sample describes.
  test('keeps it in the middle of the picture all the way', () => {
    fc.assert(
      fc.property(coordinate, coordinate, fc.double({ min: 0, max: 6, noNaN: true }), (x, z, y) => {
        fc.pre(Math.abs(z) > 0.8);
        const point: Vec3 = [x, y, z];
        const walk = new CompiledWalk(
          walkAlong(
            [
              [-10, 0],
              [10, 0],
            ],
            { ...gaze, point },
          ),
          nowhere,
        );
        for (let i = 0; i <= 20; i += 1) {
          const { position, orientation } = walk.sampleAt((walk.duration * i) / 20);
          const camera = new PerspectiveCamera(50, 16 / 9, 0.01, 200);
          camera.position.fromArray(position);
          camera.quaternion.fromArray(orientation);
          camera.updateMatrixWorld();
          const seen = new Vector3(...point).project(camera);
          // Between two stations of the path the angles are read from a curve through both.
          expect(Math.hypot(seen.x, seen.y)).toBeLessThan(0.01);
          expect(seen.z).toBeLessThan(1);
        }
      }),
      { numRuns: 40 },
    );
  });

  // Reference: three.js turns an object's −Z towards a point (Matrix4.lookAt).
  test('angles agree with an independent one, and never go the long way round', () => {
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
        fc.pre(Math.hypot(x, z) > 0.1);
        const eye = Float64Array.of(0, 0, 0, 0.01, 0, 0);
        const { pan, tilt } = gazeAt(eye, [x, y, z]);
        const other = new Object3D();
        other.rotation.order = 'YXZ';
        other.lookAt(-x, -y, -z);
        expect(Math.cos(pan[0]! - other.rotation.y)).toBeCloseTo(1, 6);
        expect(tilt[0]!).toBeCloseTo(other.rotation.x, 6);
        expect(Math.abs(pan[1]! - pan[0]!)).toBeLessThan(Math.PI);
      }),
    );
  });

  test('under the object the eye keeps the turn that led there', () => {
    const { pan, tilt } = gazeAt(Float64Array.of(-1, 0, 0, 0, 0, 0), [0, 3, 0]);
    expect(pan[0]).toBeCloseTo(-Math.PI / 2, 9);
    expect(pan[1]).toBe(pan[0]);
    expect(tilt[1]).toBeCloseTo(Math.PI / 2, 9);
  });
});
