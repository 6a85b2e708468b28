import { Document, NodeIO } from '@gltf-transform/core';
import { describe, expect, test } from '@jest/globals';
import { boundsOf } from '../geometry/index.ts';
import { readModel } from './read-model.ts';
import type { ScenePart } from './scene-model.ts';
import { withUsedVertices } from './used-vertices.ts';

const part = (name: string, places: readonly number[]): ScenePart => ({
  name,
  material: 0,
  positions: Float32Array.from(places),
  normals: Float32Array.from(places, (_, i) => (i % 3 === 1 ? 1 : 0)),
  uvs: null,
  light: null,
  indices: Uint32Array.from({ length: places.length / 3 }, (_, i) => i),
});

describe('vertices that no triangle uses', () => {
  test('where a height is missing are no place of the terrain: NODATA is a hole, not zero', async () => {
    const rows = [
      ['400', '401', '402', '403'],
      ['400', '-9999', '402', '403'],
      ['401', '401', '402', '404'],
      ['400', '401', '402', '403'],
    ].map((row) => row.join(' '));
    const grid = `ncols 4\nnrows 4\nxllcorner 0\nyllcorner 0\ncellsize 10\nNODATA_value -9999\n${rows.join('\n')}\n`;
    const { parts } = await readModel(new TextEncoder().encode(grid), 'ground.asc');
    const heights = parts.map(({ positions }) => boundsOf(positions));
    expect(Math.min(...heights.map(({ min }) => min[1]))).toBe(400);
    expect(Math.max(...heights.map(({ max }) => max[1]))).toBe(404);
  });

  test('of a list that two parts of a file share count for the part that uses them', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const scene = document.createScene();
    // Two triangles, a hundred metres apart, in one list.
    const places = [0, 0, 0, 1, 0, 0, 0, 0, 1, 100, 0, 0, 101, 0, 0, 100, 0, 1];
    const positions = document.createAccessor().setBuffer(buffer).setType('VEC3').setArray(new Float32Array(places));
    for (const [name, indices] of [
      ['Near', [0, 2, 1]],
      ['Far', [3, 5, 4]],
    ] as const) {
      const list = document.createAccessor().setBuffer(buffer).setType('SCALAR').setArray(new Uint16Array(indices));
      const primitive = document.createPrimitive().setAttribute('POSITION', positions).setIndices(list);
      scene.addChild(document.createNode(name).setMesh(document.createMesh().addPrimitive(primitive)));
    }
    const { parts } = await readModel(await new NodeIO().writeBinary(document), 'shared.glb');
    const extent = Object.fromEntries(parts.map(({ name, positions: p }) => [name, boundsOf(p)]));
    expect(extent['Near']).toMatchObject({ min: [0, 0, 0], max: [1, 0, 1] });
    expect(extent['Far']).toMatchObject({ min: [100, 0, 0], max: [101, 0, 1] });
  });

  test('nothing else of a part changes, and one that uses all of its vertices stays itself', () => {
    const whole = part('Whole', [0, 0, 0, 1, 0, 0, 0, 1, 0]);
    expect(withUsedVertices(whole)).toBe(whole);
    const loose = { ...part('Loose', [9, 9, 9, 0, 0, 0, 1, 0, 0, 0, 1, 0]), indices: Uint32Array.from([1, 2, 3]) };
    const uvs = Float32Array.from([9, 9, 1, 2, 3, 4, 5, 6]);
    const made = withUsedVertices({ ...loose, uvs, colors: Float32Array.from(loose.positions) });
    expect([...made.indices]).toEqual([0, 1, 2]);
    expect([...made.positions]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    expect([...made.uvs!]).toEqual([1, 2, 3, 4, 5, 6]);
    expect([...made.colors!]).toEqual([...made.positions]);
  });
});
