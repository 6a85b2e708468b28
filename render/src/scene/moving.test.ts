import { describe, expect, test } from '@jest/globals';
import { SiteMotion, type SiteAction } from '@eskovan/core/action';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import { BoxGeometry, Vector3 } from 'three';
import { buildScene } from './build-scene.ts';
import { MovingMeshes } from './moving.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

const site: SceneModel = {
  materials: [PLAIN_MATERIAL],
  textures: [],
  parts: [{ ...partOf(new BoxGeometry(1, 1, 1).translate(0, 0, -10)), model: 'm', name: 'Vane' }],
};
const turning = { kind: 'spin', model: 'm', part: 'Vane', start: 1, axis: [0, 1, 0], rate: 0.5 } as SiteAction;
const light = { sun: [0, 1, 0] as const, sky: 'clear' as const };

async function vane(): Promise<MovingMeshes> {
  const motion = new SiteMotion(site, [turning]);
  return new MovingMeshes(await buildScene(site, { look: 'natural', exposure: 0, light, motion } as never), motion);
}
const EYE = new Vector3();
const PIXEL = Math.PI / 2 / 128;

describe('what moves, seen from the eye', () => {
  test('has moved when it has never been looked at, and not before it begins to', async () => {
    const moving = await vane();
    moving.place(0);
    expect(moving.haveMoved(EYE, PIXEL)).toBe(true);
    moving.remember();
    moving.place(0.9);
    expect(moving.haveMoved(EYE, PIXEL)).toBe(false);
  });

  test('has moved once one of its ends is a pixel of the mirrored picture elsewhere, by hand', async () => {
    const moving = await vane();
    moving.place(1);
    moving.remember();
    // A ball of √3/2 about 10 m away: its nearest point is 9.13 m off, its ends go r·0.5 rad/s.
    const radius = Math.sqrt(3) / 2;
    const seconds = (PIXEL * (10 - radius)) / (radius * 0.5);
    moving.place(1 + 0.9 * seconds);
    expect(moving.haveMoved(EYE, PIXEL)).toBe(false);
    moving.place(1 + 1.1 * seconds);
    expect(moving.haveMoved(EYE, PIXEL)).toBe(true);
    // From twice as far it has not.
    expect(moving.haveMoved(new Vector3(0, 0, 12), PIXEL)).toBe(false);
    moving.remember();
    expect(moving.haveMoved(EYE, PIXEL)).toBe(false);
  });

  test('one that the eye is in has moved by however little', async () => {
    const moving = await vane();
    moving.place(1);
    moving.remember();
    moving.place(1.001);
    expect(moving.haveMoved(new Vector3(0, 0, -10), PIXEL)).toBe(true);
  });
});
