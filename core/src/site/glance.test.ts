import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry, SphereGeometry, type BufferGeometry } from 'three';
import { countTriangles, packModel, PLAIN_MATERIAL, unpackModel, type ScenePart } from '../format/index.ts';
import { boundsOf, cornerArea } from '../geometry/index.ts';
import { glanceOf, shareOf, thinMesh } from './index.ts';

/** A lit part whose light says where each vertex is, so that a mix-up would show. */
function part(name: string, geometry: BufferGeometry): ScenePart {
  const positions = Float32Array.from(geometry.getAttribute('position').array);
  return {
    name,
    material: 0,
    positions,
    normals: Float32Array.from(geometry.getAttribute('normal').array),
    uvs: Float32Array.from(geometry.getAttribute('uv').array),
    light: { ambient: positions.map(Math.abs), sun: Float32Array.from({ length: positions.length / 3 }, () => 0.5) },
    indices: Uint32Array.from(geometry.index!.array),
  };
}
const evenly = ({ positions }: ScenePart) => ({
  ambient: new Float32Array(positions.length).fill(0.5),
  sun: new Float32Array(positions.length / 3),
});
const areaOf = ({ positions, indices }: ScenePart) => {
  let area = 0;
  for (let t = 0; t < indices.length; t += 3)
    area += cornerArea(positions, 3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!);
  return area;
};
const site = (...parts: ScenePart[]) => ({ parts, materials: [PLAIN_MATERIAL], textures: [] });
const hill = () => part('Hill', new SphereGeometry(40, 120, 80));
const box = (i: number) => part(`Box ${i}`, new BoxGeometry(1, 1, 1).translate(3 * i, 0, 0));

describe('a glance of a heavy site', () => {
  test('a light site needs none', async () => {
    expect(await glanceOf(site(box(1), box(2)))).toBeNull();
  });

  test('keeps to its budget, its extent and its names', async () => {
    const whole = site(hill(), ...Array.from({ length: 20 }, (_, i) => box(i)));
    const glance = (await glanceOf(whole, 10_000, 3000))!;
    expect(countTriangles(glance)).toBeLessThanOrEqual(3000);
    expect(countTriangles(glance)).toBeGreaterThan(1500);
    expect(glance.parts.map(({ name }) => name)).toEqual(whole.parts.map(({ name }) => name));
    const [before, after] = [boundsOf(whole.parts[0]!.positions), boundsOf(glance.parts[0]!.positions)];
    for (let k = 0; k < 3; k += 1) expect(Math.abs(after.max[k]! - before.max[k]!)).toBeLessThan(3);
  });

  test('a box stays a box', async () => {
    const glance = (await glanceOf(site(hill(), box(1)), 10_000, 3000))!;
    expect(glance.parts[1]!.indices).toHaveLength(36);
  });

  test('a house on a hill of very many triangles keeps its walls and the light on them', async () => {
    const house = part('Wall', new BoxGeometry(8, 3, 0.3, 16, 6, 1));
    const glance = (await glanceOf(site(hill(), house), 10_000, 3000))!;
    expect(areaOf(glance.parts.find(({ name }) => name === 'Wall')!)).toBeCloseTo(areaOf(house), 6);
    // Also where it has to be thinned: flat faces stay what they are.
    const large = part('Wall', new BoxGeometry(8, 3, 0.3, 60, 30, 1));
    const thin = (await glanceOf(site(hill(), { ...large, light: evenly(large) }), 10_000, 3000))!;
    const wall = thin.parts.find(({ name }) => name === 'Wall')!;
    expect(wall.indices.length).toBeLessThan(0.6 * large.indices.length);
    expect(Math.abs(areaOf(wall) / areaOf(large) - 1)).toBeLessThan(0.01);
  });

  test('a terrain that is one sheet is still there, bumpy as it is', async () => {
    const ground = new PlaneGeometry(200, 200, 140, 140).rotateX(-Math.PI / 2);
    const places = ground.getAttribute('position');
    for (let i = 0; i < places.count; i += 1) places.setY(i, 3 * Math.sin(i * 12.9) + 5 * Math.sin(i / 90));
    const whole = part('Ground', ground);
    const glance = (await glanceOf(site({ ...whole, light: evenly(whole) }, box(0)), 10_000, 3000))!;
    const [there] = glance.parts.filter(({ name }) => name === 'Ground');
    expect(there!.indices.length / 3).toBeGreaterThan(1000);
    const plan = (of: ScenePart) =>
      areaOf({ ...of, positions: of.positions.map((value, k) => (k % 3 === 1 ? 0 : value)) });
    expect(plan(there!) / plan(whole)).toBeGreaterThan(0.95);
  });

  test('every vertex keeps its own light, and only used ones are kept', async () => {
    const glance = (await glanceOf(site(hill()), 10_000, 3000))!;
    const { positions, light, uvs, normals, indices } = glance.parts[0]!;
    expect(light!.ambient).toEqual(positions.map(Math.abs));
    const count = positions.length / 3;
    expect([normals.length, uvs!.length, light!.sun.length]).toEqual([3 * count, 2 * count, count]);
    expect(new Set(indices).size).toBe(count);
    expect(Math.max(...indices)).toBe(count - 1);
  });

  test('what is small is left out where there is too much of everything', async () => {
    const many = Array.from({ length: 400 }, (_, i) => box(i));
    const glance = (await glanceOf(site(hill(), ...many), 10_000, 3000))!;
    expect(countTriangles(glance)).toBeLessThanOrEqual(3000);
    expect(glance.parts[0]!.name).toBe('Hill');
    expect(glance.parts.length).toBeLessThan(401);
  });

  test('is a packed model like any other', async () => {
    const glance = (await glanceOf(site(hill()), 10_000, 3000))!;
    expect(countTriangles(unpackModel(packModel(glance)))).toBe(countTriangles(glance));
  });
});

test('thinning keeps to the vertices there are, and to its target', async () => {
  const { positions, indices } = hill();
  const thin = await thinMesh(indices, positions, new Float32Array((positions.length / 3) * 4), 900);
  expect(thin.length).toBeGreaterThan(600);
  expect(thin.length).toBeLessThanOrEqual(1.3 * 900);
  expect(Math.max(...thin)).toBeLessThan(positions.length / 3);
});

test('what is smaller than its share is whole, and the rest is shared out among the others', () => {
  expect(shareOf([10, 20, 500, 1000], 630)).toBe(300);
  expect(shareOf([10, 20], 30)).toBe(Infinity);
  expect(shareOf([100, 100], 100)).toBe(50);
});
