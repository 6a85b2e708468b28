import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix4, OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import type { Quaternion, Vec3 } from '../document/index.ts';
import { Projection, throughLens, type CameraView } from './index.ts';

const sensor = { widthMm: 36, heightMm: 24 };
const lens = (focalLengthMm: number, shift: [number, number] = [0, 0]) => throughLens({ focalLengthMm, sensor, shift });
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const quaternion = fc
  .tuple(number(-1, 1), number(-1, 1), number(-1, 1), number(-1, 1))
  .filter((q) => Math.hypot(...q) > 0.1)
  .map((q) => q.map((value) => value / Math.hypot(...q)) as Quaternion);
const place = fc.tuple(number(-30, 30), number(-30, 30), number(-30, 30)) as fc.Arbitrary<Vec3>;

describe('lens shift', () => {
  test('moves the window and keeps its size', () => {
    fc.assert(
      fc.property(number(-1, 1), number(-1, 1), (x, y) => {
        const still = new Projection(lens(24), 16 / 9).window;
        const shifted = new Projection(lens(24, [x, y]), 16 / 9).window;
        expect(shifted.right - shifted.left).toBeCloseTo(still.right - still.left, 10);
        expect(shifted.top - still.top).toBeCloseTo((y * 24) / 24, 10);
        expect(shifted.left - still.left).toBeCloseTo((x * 36) / 24, 10);
      }),
    );
  });

  // By hand: 24 mm on 36 × 24 in a picture of 1200 × 800 is 800 px of focal length. A point 2 m to the right and 1 m
  // up at 4 m is 400 px right and 200 px up; a shift of a quarter of the sensor's height lifts the frame by 200 px.
  test('worked pixels: 24 mm, shift up by a quarter of the height', () => {
    const pixels = ({ x, y }: { x: number; y: number }) => [600 + 600 * x, 400 - 400 * y];
    expect(pixels(new Projection(lens(24), 1.5).project([2, 1, -4]))).toEqual([
      expect.closeTo(1000, 6),
      expect.closeTo(200, 6),
    ]);
    expect(pixels(new Projection(lens(24, [0, 0.25]), 1.5).project([2, 1, -4]))).toEqual([
      expect.closeTo(1000, 6),
      expect.closeTo(400, 6),
    ]);
  });

  test('a level camera with shift keeps verticals upright', () => {
    const projection = new Projection(lens(20, [0.1, 0.4]), 4 / 3, [0, 1.6, 0]);
    const [foot, head] = [projection.project([3, 0, -7]), projection.project([3, 12, -7])];
    expect(foot.x).toBeCloseTo(head.x, 12);
  });
});

describe('against three.js', () => {
  const compare = (view: CameraView, camera: PerspectiveCamera | OrthographicCamera, p: Projection, at: Vec3) => {
    const own = new Matrix4().fromArray(p.matrix(camera.near, camera.far));
    own.elements.forEach((value, i) => expect(value).toBeCloseTo(camera.projectionMatrix.elements[i]!, 9));
    const seen = new Vector3(...at).project(camera);
    const { x, y, depth } = p.project(at);
    if (view.kind === 'lens' && depth < 0.1) return;
    expect(x).toBeCloseTo(seen.x, 6);
    expect(y).toBeCloseTo(seen.y, 6);
    // And back: the ray through that place goes through the point.
    const { from, direction } = p.ray(x, y);
    const way = at.map((value, k) => value - from[k]!);
    const along = way.reduce((sum, value, k) => sum + value * direction[k]!, 0);
    expect(Math.hypot(...way.map((value, k) => value - along * direction[k]!))).toBeLessThan(1e-6);
  };

  test('a shifted, rolled lens: PerspectiveCamera with filmOffset and setViewOffset', () => {
    fc.assert(
      fc.property(
        number(12, 200),
        number(-0.5, 0.5),
        number(-0.5, 0.5),
        place,
        quaternion,
        place,
        (f, sx, sy, at, q, point) => {
          const camera = new PerspectiveCamera((360 / Math.PI) * Math.atan(24 / (2 * f)), 1.5, 0.1, 500);
          // A shift of the sensor as three.js says it: a picture of the same size beside the middle one.
          camera.setViewOffset(1200, 800, sx * 1200, -sy * 800, 1200, 800);
          camera.position.fromArray(at);
          camera.quaternion.fromArray(q);
          camera.updateProjectionMatrix();
          camera.updateMatrixWorld();
          const view = lens(f, [sx, sy]);
          compare(view, camera, new Projection(view, 1.5, at, q), point);
        },
      ),
      { numRuns: 100 },
    );
  });

  test('parallel rays: OrthographicCamera', () => {
    fc.assert(
      fc.property(number(0.1, 60), number(0.4, 3), place, quaternion, place, (height, aspect, at, q, point) => {
        const [w, h] = [(height * aspect) / 2, height / 2];
        const camera = new OrthographicCamera(-w, w, h, -h, 0.1, 500);
        camera.position.fromArray(at);
        camera.quaternion.fromArray(q);
        camera.updateMatrixWorld();
        const view: CameraView = { kind: 'parallel', height };
        compare(view, camera, new Projection(view, aspect, at, q), point);
      }),
      { numRuns: 100 },
    );
  });
});

test('edges and footprint: 50 mm on 36 × 24 sees 39.60° and 3.6 m at 5 m', () => {
  const projection = new Projection(lens(50), 1.5);
  expect(((projection.edges.right - projection.edges.left) * 180) / Math.PI).toBeCloseTo(39.6, 2);
  expect(projection.footprint(5)).toEqual({ width: expect.closeTo(3.6, 9), height: expect.closeTo(2.4, 9) });
  expect(new Projection({ kind: 'parallel', height: 3 }, 2).footprint(99)).toEqual({ width: 6, height: 3 });
});
