import { describe, expect, test } from '@jest/globals';
import { PerspectiveCamera, Vector3 } from 'three';
import { DEFAULT_LENS, type Vec3 } from '../document/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { fieldLines, lineInPicture } from './seen-camera.ts';

const ASPECT = 16 / 9;
const view = throughLens(DEFAULT_LENS);
const looking = (position: Vec3, pan: number, tilt = 0) =>
  new Projection(view, ASPECT, position, orientationOf({ pan, tilt, roll: 0 }));

describe('what a camera sees, as lines', () => {
  test('four from the eye, four round its picture; the corners are the corners of that picture', () => {
    const camera = looking([3, 1.6, -2], 0.7, -0.2);
    const lines = fieldLines(camera, 4);
    expect(lines).toHaveLength(8);
    for (const [from, to] of lines.slice(0, 4)) {
      expect(from).toEqual([3, 1.6, -2]);
      const { x, y, depth } = camera.project(to);
      expect([Math.abs(x), Math.abs(y)]).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
      expect(depth).toBeCloseTo(4, 9);
    }
    // Its upper edge is the last one.
    for (const end of lines[7]!) expect(camera.project(end).y).toBeCloseTo(1, 9);
  });

  test('without perspective it is a box: its edges begin apart and stay so', () => {
    const camera = new Projection({ kind: 'parallel', height: 6 }, 1.5);
    for (const [from, to] of fieldLines(camera, 10).slice(0, 4)) {
      expect(Math.abs(from[0])).toBeCloseTo(4.5, 9);
      expect(Math.abs(from[1])).toBeCloseTo(3, 9);
      expect(to).toEqual([expect.closeTo(from[0], 9), expect.closeTo(from[1], 9), expect.closeTo(from[2] - 10, 9)]);
    }
  });
});

describe('a line of the scene in a picture', () => {
  test('lies where three’s camera has it', () => {
    const picture = looking([1, 2, 6], 0.3, -0.1);
    const camera = new PerspectiveCamera();
    camera.projectionMatrix.fromArray(picture.matrix(0.1, 100));
    camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
    camera.position.set(1, 2, 6);
    camera.rotation.set(-0.1, 0.3, 0, 'YXZ');
    camera.updateMatrixWorld();
    const [from, to]: [Vec3, Vec3] = [
      [0, 1, -4],
      [2, 3, -9],
    ];
    const ends = lineInPicture(picture, [from, to])!;
    [from, to].forEach((point, i) => {
      const seen = new Vector3(...point).project(camera);
      expect(ends[i]![0]).toBeCloseTo(seen.x, 9);
      expect(ends[i]![1]).toBeCloseTo(seen.y, 9);
    });
  });

  test('ends before the eye, on the same line; all behind it, there is none', () => {
    const picture = looking([0, 0, 0], 0);
    const line = lineInPicture(picture, [
      [0.5, 0, 3],
      [0.5, 0, -3],
    ])!;
    const whole = picture.project([0.5, 0, -3]);
    // It comes from the right edge of everything, at the same height.
    expect(line[0]![0]).toBeGreaterThan(20);
    expect(line[0]![1]).toBeCloseTo(whole.y, 9);
    expect(line[1]![0]).toBeCloseTo(whole.x, 9);
    expect(
      lineInPicture(picture, [
        [0, 0, 1],
        [1, 0, 4],
      ]),
    ).toBeNull();
  });

  test('nothing is behind a picture without perspective', () => {
    const picture = new Projection({ kind: 'parallel', height: 2 }, 1);
    const behind = lineInPicture(picture, [
      [0.5, 0.5, 3],
      [0, 0, -3],
    ]);
    expect(behind).toEqual([
      [expect.closeTo(0.5, 9), expect.closeTo(0.5, 9)],
      [expect.closeTo(0, 9), expect.closeTo(0, 9)],
    ]);
  });
});
