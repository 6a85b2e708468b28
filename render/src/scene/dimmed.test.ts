import { describe, expect, test } from '@jest/globals';
import type { Dimmer } from '@eskovan/core/action';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import { dimmedModel } from '@eskovan/core/site';
import { BoxGeometry, DataUtils, PlaneGeometry, type BufferAttribute, type Group, type Mesh } from 'three';
import { buildScene } from './build-scene.ts';
import { DimmedMeshes, type MeshShares } from './dimmed.ts';
import type { FinishUniforms } from './finish.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

const glowing = { ...PLAIN_MATERIAL, emissive: [0.9, 0.7, 0.4] as [number, number, number] };
const tinted = { ...PLAIN_MATERIAL, color: [0.8, 0.5, 0.2] as [number, number, number] };
const four = (value: number) => new Float32Array(12).fill(value);
const site: SceneModel = {
  materials: [tinted, glowing],
  textures: [],
  parts: [
    {
      ...partOf(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2)),
      model: 'm',
      name: 'Floor',
      light: { ambient: four(0.5), sun: new Float32Array(4), shares: [four(0.3), four(0.1999)] },
    },
    {
      ...partOf(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2).translate(30, 0, 0)),
      model: 'm',
      name: 'Far away',
      light: { ambient: four(0.5), sun: new Float32Array(4), shares: [null, null] },
    },
    {
      ...partOf(new BoxGeometry(0.1, 0.1, 0.1).translate(0, 1, 0), { material: 1 }),
      model: 'm',
      name: 'Lamps / Left',
      light: { ambient: new Float32Array(72).fill(0.1), sun: new Float32Array(24), shares: [null, null] },
    },
  ],
};
const lamps = (a: number, b: number): Dimmer[] => [
  { model: 'm', name: 'Lamps', levelAt: (time) => (time < 1 ? 1 : a) },
  { model: 'm', name: 'Other', levelAt: (time) => (time < 1 ? 1 : b) },
];
const light = { sun: [0, 1, 0] as const, sky: 'clear' as const };
const build = (model: SceneModel, dimmers: Dimmer[], finish?: FinishUniforms) =>
  buildScene(model, { look: 'full', exposure: 0, light, dimmers, ...(finish ? { finish } : {}) } as never);
const numbers = (scene: Group, name: string) =>
  (scene.children as Mesh[]).flatMap(({ geometry }) => {
    const attribute = geometry.getAttribute(name) as BufferAttribute | undefined;
    return attribute ? [...(attribute.array as Uint16Array)].map((half) => DataUtils.fromHalfFloat(half)) : [];
  });

describe('a drawn scene whose lamps dim', () => {
  test.each([
    ['color', undefined],
    ['ambient', {} as FinishUniforms],
  ])('is at every level what a scene built of the dimmed site is: %s', async (name, finish) => {
    const levels = [0.25, 0.5];
    const dimmers = lamps(levels[0]!, levels[1]!);
    const scene = await build(site, dimmers, finish);
    const before = numbers(scene, name);
    const dimmed = new DimmedMeshes(scene, dimmers);
    dimmed.place(0);
    expect(numbers(scene, name)).toEqual(before);
    expect(dimmed.takeChange()).toBe(false);
    dimmed.place(2);
    expect(dimmed.takeChange()).toBe(true);
    const truth = numbers(await build(dimmedModel(site, dimmers, levels), [], finish), name);
    const now = numbers(scene, name);
    expect(now).toHaveLength(truth.length);
    now.forEach((value, i) => expect(value).toBeCloseTo(truth[i]!, 3));
    expect(now).not.toEqual(before);
    dimmed.place(0);
    expect(numbers(scene, name)).toEqual(before);
  });

  test('nearly dark, it is right to a thousandth of itself: not what is left of large numbers', async () => {
    const dimmers = lamps(0, 0);
    const scene = await build(site, dimmers);
    new DimmedMeshes(scene, dimmers).place(2);
    const [floor] = (scene.children as Mesh[]).filter(({ userData }) => userData['shares']?.color);
    const red = DataUtils.fromHalfFloat((floor!.geometry.getAttribute('color').array as Uint16Array)[0]!);
    expect(red / (0.8 * (0.5 - 0.3 - 0.1999))).toBeCloseTo(1, 2);
  });

  test('what no lamp reaches is kept as it is, and costs nothing', async () => {
    const scene = await build(site, lamps(0, 0));
    const meshes = (scene.children as Mesh[]).filter(({ userData }) => userData['shares'].color);
    const reached = meshes.flatMap(({ geometry, userData }) =>
      [...(userData['shares'] as MeshShares)['color']!.vertices].map((v) => geometry.getAttribute('position').getX(v)),
    );
    // The floor's four corners, and the lamp's own.
    expect(reached).toHaveLength(4 + 24);
    expect(Math.max(...reached)).toBeLessThan(5);
    expect((await build(site, [])).children.every(({ userData }) => !userData['shares'].color)).toBe(true);
  });
});
