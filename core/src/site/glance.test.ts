import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, SphereGeometry, type BufferGeometry } from 'three';
import { countTriangles, packModel, PLAIN_MATERIAL, unpackModel, type ScenePart } from '../format/index.ts';
import { boundsOf } from '../geometry/index.ts';
import { glanceOf, thinIndices } from './index.ts';

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

test('thinning keeps to the vertices there are', async () => {
  const { positions, indices } = hill();
  const thin = await thinIndices(indices, positions, 900);
  expect(thin.length).toBeGreaterThan(300);
  expect(thin.length).toBeLessThanOrEqual(900);
  expect(Math.max(...thin)).toBeLessThan(positions.length / 3);
});
