import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PerspectiveCamera, Vector3 } from 'three';
import { DEFAULT_LENS, type GazeAtObject, type Vec3, type Walk } from '../document/index.ts';
import { CompiledWalk } from '../move/index.ts';
import { Footing } from '../survey/index.ts';
import { followTarget, SiteMotion, type SiteAction } from './index.ts';

const MODEL = '00000000-0000-4000-8000-000000000001';
const box = (name: string, [x, y, z]: Vec3, joint?: number) => ({
  model: MODEL,
  name,
  bounds: { min: [x - 1, y - 1, z - 1] as Vec3, max: [x + 1, y + 1, z + 1] as Vec3 },
  ...(joint === undefined ? {} : { joint }),
});
const parts = [box('Ferry / Cabin', [0, 1, -8], 0), box('Pier', [4, 0, -8])];
const site = {
  parts,
  joints: [
    {
      name: 'Ferry',
      parent: null,
      hang: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
      rest: {
        translation: [0, 0, 0] as Vec3,
        rotation: [0, 0, 0, 1] as [number, number, number, number],
        scale: [1, 1, 1] as Vec3,
      },
    },
  ],
  movements: [
    {
      name: 'Cross',
      model: MODEL,
      duration: 10,
      targets: ['Ferry'],
      tracks: [
        {
          joint: 0,
          of: 'translation' as const,
          between: 'linear' as const,
          times: Float32Array.of(0, 10),
          values: Float32Array.of(0, 0, 0, 20, 0, -10),
        },
      ],
    },
  ],
};
const cross = (change: Partial<Extract<SiteAction, { kind: 'recorded' }>> = {}): SiteAction => ({
  kind: 'recorded',
  model: MODEL,
  movement: 'Cross',
  start: 0,
  speed: 1,
  repeat: 'once',
  ...change,
});
const gazeAt = (name: string, point: Vec3, centre: Vec3): GazeAtObject => ({
  kind: 'object',
  model: MODEL,
  name,
  point,
  centre,
});
/** The top of the cabin, chosen when the ferry still lay two metres further left. */
const gaze = gazeAt('Ferry / Cabin', [-2, 2, -8], [-2, 1, -8]);

const walk: Walk = {
  kind: 'walk',
  path: {
    closed: false,
    nodes: [-6, 0, 6].map((x, i) => ({
      id: `00000000-0000-4000-8000-00000000010${i}`,
      x,
      y: 0,
      z: i === 1 ? 1 : 0,
      kind: 'smooth',
      radius: 0.5,
    })),
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.1, duration: 10, shape: 'soft' },
  gaze,
  lens: DEFAULT_LENS,
};

describe('a gaze at something that moves', () => {
  test('goes where that goes, beginning where it is now', () => {
    const target = followTarget(gaze, parts, new SiteMotion(site, [cross()]))!;
    expect(target(0)).toEqual([0, 2, -8]);
    expect(target(5)).toEqual([10, 2, -13]);
    expect(target(60)).toEqual([20, 2, -18]);
  });

  test('is none at what stands still or is not there', () => {
    const motion = new SiteMotion(site, [cross()]);
    expect(followTarget(gazeAt('Pier', [4, 0, -8], [4, 0, -8]), parts, motion)).toBeNull();
    expect(followTarget(gazeAt('Buoy', [4, 0, -8], [4, 0, -8]), parts, motion)).toBeNull();
    expect(followTarget(gaze, parts, new SiteMotion(site, []))).toBeNull();
  });

  // Reference: the projection of three.js with the camera that a sample describes.
  test('keeps it in the middle of the picture at every instant', () => {
    const target = followTarget(gaze, parts, new SiteMotion(site, [cross({ repeat: 'to and fro', speed: 1.7 })]))!;
    const compiled = new CompiledWalk(walk, new Footing(new Float32Array(0)), { targetOf: () => target });
    fc.assert(
      fc.property(fc.double({ min: 0, max: compiled.duration, noNaN: true }), (time) => {
        const { position, orientation } = compiled.sampleAt(time);
        const camera = new PerspectiveCamera(50, 16 / 9, 0.01, 200);
        camera.position.fromArray(position);
        camera.quaternion.fromArray(orientation);
        camera.updateMatrixWorld();
        const seen = new Vector3(...target(time)).project(camera);
        expect(Math.hypot(seen.x, seen.y)).toBeLessThan(2e-3);
        expect(seen.z).toBeLessThan(1);
      }),
      { numRuns: 300 },
    );
  });

  test('turns the eye without a jump', () => {
    const target = followTarget(gaze, parts, new SiteMotion(site, [cross({ speed: 5 })]))!;
    const compiled = new CompiledWalk(walk, new Footing(new Float32Array(0)), { targetOf: () => target });
    let before = compiled.sampleAt(0).orientation;
    for (let time = 0.04; time < compiled.duration; time += 0.04) {
      const { orientation } = compiled.sampleAt(time);
      // The sign is continuous too: neighbouring quaternions are near each other as numbers.
      expect(Math.hypot(...orientation.map((value, k) => value - before[k]!))).toBeLessThan(0.05);
      before = orientation;
    }
  });
});
