import { expect, test } from '@jest/globals';
import { PLAIN_MATERIAL, type SceneMaterial, type SceneModel } from '@eskovan/core/format';
import { PlaneGeometry } from 'three';
import { occludersOf } from './occluders.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

const wall = (side: number, material = 0, name = 'Wall') => partOf(new PlaneGeometry(side, side), { material, name });
const look = (change: Partial<SceneMaterial>): SceneMaterial => ({ ...PLAIN_MATERIAL, doubleSided: false, ...change });
const modelOf = (parts: SceneModel['parts'], materials = [look({})]): SceneModel => ({
  parts,
  materials,
  textures: [],
});

test('walls hide; glass, what is cut out, what moves and what pictures in passing leave out do not', () => {
  const materials = [look({}), look({ opacity: 0.3 }), look({ cutOut: 0.5 }), look({ opacity: 0.95 })];
  const parts = [wall(4), wall(4, 1), wall(4, 2), wall(4, 3), wall(4, 0, 'Door'), wall(0.3)];
  const { soup, twoSided, sizes } = occludersOf(modelOf(parts, materials), ({ name }) => name !== 'Door');
  expect(soup).toHaveLength(2 * 9);
  expect([...twoSided]).toEqual([0, 0]);
  for (const size of sizes) expect(size).toBeCloseTo(Math.sqrt(8), 5);
});

test('of a surface that is cut up all pieces count, and whether both of its sides are drawn', () => {
  const cut = partOf(new PlaneGeometry(4, 4, 20, 20));
  const { soup, twoSided, sizes } = occludersOf(modelOf([cut], [look({ doubleSided: true })]), () => true);
  expect(soup).toHaveLength(800 * 9);
  expect(twoSided.every((both) => both === 1)).toBe(true);
  expect(sizes[0]).toBeCloseTo(Math.sqrt(0.02), 5);
});

test('of very many faces the largest are taken', () => {
  const fine = partOf(new PlaneGeometry(30, 30, 100, 100));
  const { sizes } = occludersOf(modelOf([fine, wall(20)]), () => true);
  expect(sizes).toHaveLength(6000);
  expect(sizes.filter((size) => size > 10)).toHaveLength(2);
});

test('a model with nothing in it hides nothing', () => {
  expect(occludersOf(modelOf([]), () => true).soup).toHaveLength(0);
  expect(occludersOf(modelOf([wall(0.2)]), () => true).soup).toHaveLength(0);
});
