import { describe, expect, test } from '@jest/globals';
import { PerspectiveCamera, Vector3 } from 'three';
import { DEFAULT_LENS } from '../document/index.ts';
import { depthRange, viewAngles } from '../optics/index.ts';
import { firstLook } from './index.ts';

describe('a first look', () => {
  // Outside check: three's own camera sees every corner, and one of them near the frame's edge.
  test.each([
    ['a house', [0, 0, 0], [20, 8, 12]],
    ['a tower of 120 m', [-12, 0, -12], [12, 120, 12]],
    ['a mast', [0, 0, 0], [0.6, 98, 0.6]],
    ['a ring', [-0.01, 0, -0.002], [0.01, 0.02, 0.002]],
    ['a terrain of 20 km', [-10_000, 200, -10_000], [10_000, 900, 10_000]],
  ] as [string, [number, number, number], [number, number, number]][])(
    'the first look shows the whole of %s, from above its ground',
    (_, min, max) => {
      const aspect = 16 / 9;
      const home = firstLook({ min, max }, aspect);
      const camera = new PerspectiveCamera((viewAngles(DEFAULT_LENS, aspect).vertical * 180) / Math.PI, aspect);
      camera.position.fromArray(home.position);
      camera.quaternion.fromArray(home.orientation);
      camera.updateMatrixWorld();
      let edge = 0;
      for (let corner = 0; corner < 8; corner += 1) {
        const place = new Vector3(
          ...([0, 1, 2].map((k) => (corner & (1 << k) ? max : min)[k]!) as [number, number, number]),
        );
        const { x, y } = place.project(camera);
        edge = Math.max(edge, Math.abs(x), Math.abs(y));
      }
      expect(edge).toBeLessThan(0.95);
      expect(edge).toBeGreaterThan(0.75);
      expect(home.position[1]).toBeGreaterThan(max[1] - 0.5 * (max[1] - min[1]));
    },
  );

  test('depth reaches from before the nearest to behind the farthest corner, and no tighter inside', () => {
    const hall = { min: [0, 0, 0], max: [20, 8, 12] } as {
      min: [number, number, number];
      max: [number, number, number];
    };
    expect(depthRange([10, 1.6, 6], hall).near).toBeCloseTo(0.08, 6);
    const ring = { min: [-0.01, 0, -0.002], max: [0.01, 0.02, 0.002] } as typeof hall;
    expect(depthRange([0, 0.01, 0.03], ring).near).toBeLessThan(0.028);
    for (const [eye, bounds] of [
      [[10, 1.6, 6], hall],
      [[300, 40, -200], hall],
      [[0, 0.01, 0.03], ring],
    ] as [[number, number, number], typeof hall][]) {
      const { near, far } = depthRange(eye, bounds);
      for (let corner = 0; corner < 8; corner += 1) {
        const away = Math.hypot(...[0, 1, 2].map((k) => (corner & (1 << k) ? bounds.max : bounds.min)[k]! - eye[k]!));
        expect(away).toBeGreaterThan(near);
        expect(away).toBeLessThan(far);
      }
    }
  });
});
