import { Document, NodeIO } from '@gltf-transform/core';
import { KHRMeshQuantization } from '@gltf-transform/extensions';
import { describe, expect, test } from '@jest/globals';
import { countTriangles, readGlb, triangleSoup } from '../index.ts';
import { boxGlb } from './box-glb.fixture.ts';
import { floats, rawGlb, triangle } from './raw-glb.fixture.ts';

describe('reading GLB', () => {
  test('puts everything into world space and keeps names and materials', async () => {
    const model = await readGlb(await boxGlb({ scale: [2, 3, 4], translation: [0, 1.5, 0], nested: true }), 'box.glb');
    expect(countTriangles(model)).toBe(12);
    expect(model.parts[0]!.name).toBe('House / Box');
    expect(model.materials[0]).toMatchObject({ name: 'Paint', opacity: 1 });
    expect(model.materials[0]!.color[2]).toBeCloseTo(0.6, 6);
    const { soup } = triangleSoup(model);
    const axis = (k: number) => soup.filter((_, i) => i % 3 === k);
    expect([Math.min(...axis(0)), Math.max(...axis(0))]).toEqual([9, 11]);
    expect([Math.min(...axis(1)), Math.max(...axis(1))]).toEqual([0, 3]);
    expect([Math.min(...axis(2)), Math.max(...axis(2))]).toEqual([-2, 2]);
  });

  test('makes normals where the file has none, and turns mirrored triangles the right way round', async () => {
    for (const options of [{ normals: false }, { scale: [-1, 1, 1] as [number, number, number] }]) {
      const [part] = (await readGlb(await boxGlb(options), 'box.glb')).parts;
      const { positions: p, normals: n, indices } = part!;
      for (let k = 0; k < indices.length; k += 3) {
        const [a, b, c] = [indices[k]! * 3, indices[k + 1]! * 3, indices[k + 2]! * 3];
        const u = [0, 1, 2].map((i) => p[b + i]! - p[a + i]!);
        const v = [0, 1, 2].map((i) => p[c + i]! - p[a + i]!);
        const face = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
        const middle = [0, 1, 2].map((i) => p[a + i]! + p[b + i]! + p[c + i]!);
        const outward = face[0]! * middle[0]! + face[1]! * middle[1]! + face[2]! * middle[2]!;
        expect(outward).toBeGreaterThan(0);
        expect(n[a]! * middle[0]! + n[a + 1]! * middle[1]! + n[a + 2]! * middle[2]!).toBeGreaterThan(0);
      }
    }
  });

  test('knows glass', async () => {
    const model = await readGlb(await boxGlb({ opacity: 0.2 }), 'glass.glb');
    expect([...triangleSoup(model).seeThrough]).toEqual(Array(12).fill(1));
  });

  test('quantized coordinates are as large as they were', async () => {
    const document = new Document();
    document.createExtension(KHRMeshQuantization).setRequired(true);
    const position = document
      .createAccessor()
      .setBuffer(document.createBuffer())
      .setType('VEC3')
      .setNormalized(true)
      .setArray(Int16Array.of(-32767, 0, 0, 32767, 0, 0, 0, 32767, 0));
    const mesh = document.createMesh().addPrimitive(document.createPrimitive().setAttribute('POSITION', position));
    document.createScene().addChild(document.createNode('Sail').setMesh(mesh).setScale([4, 4, 4]));
    const bytes = await new NodeIO().registerExtensions([KHRMeshQuantization]).writeBinary(document);
    const { soup } = triangleSoup(await readGlb(bytes, 'sail.glb'));
    expect([...soup]).toEqual([-4, 0, 0, 4, 0, 0, 0, 4, 0].map((value) => expect.closeTo(value, 5)));
  });

  test('a single triangle without indices or material is a model', async () => {
    const model = await readGlb(rawGlb(triangle, floats(0, 0, 0, 1, 0, 0, 0, 1, 0)), 'one.glb');
    expect(countTriangles(model)).toBe(1);
  });
});
