import { expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { mergeGeometries } from 'three/addons/utils/BufferGeometryUtils.js';
import { PLAIN_MATERIAL, type SceneModel } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { bakeLight } from './bake.ts';
import { isSheet, withBacks } from './sheets.ts';

const given = (geometry: Parameters<typeof partOf>[0]): SceneModel => ({
  parts: [partOf(geometry)],
  materials: [PLAIN_MATERIAL],
  textures: [],
});

test('a sheet that was given backs is told from bodies, also from bodies that touch', () => {
  const plane = given(new PlaneGeometry(3, 2, 4, 3).rotateX(0.7).translate(500, 3, -20));
  expect(isSheet(plane.parts[0]!)).toBe(false);
  expect(isSheet(withBacks(plane).parts[0]!)).toBe(true);
  const touching = mergeGeometries([0, 1, 2, 3].map((x) => new BoxGeometry(1, 1, 1).translate(x, 0, 0)));
  const bodies = given(touching);
  expect(withBacks(bodies).parts[0]).toBe(bodies.parts[0]);
  expect(isSheet(bodies.parts[0]!)).toBe(false);
  // Both sides of a wall of these sides are cut another way.
  const wall = given(new PlaneGeometry(5, 2.6).translate(0, 1.3, -2));
  expect(isSheet(bakeLight(wall).parts[0]!)).toBe(true);
  expect(isSheet(bakeLight(given(new BoxGeometry(5, 2.6, 0.01))).parts[0]!)).toBe(false);
});
