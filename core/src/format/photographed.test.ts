import { expect, test } from '@jest/globals';
import { Document, NodeIO } from '@gltf-transform/core';
import { KHRMaterialsUnlit } from '@gltf-transform/extensions';
import { readModel } from './index.ts';

/** A PLY of a strip of triangles, each vertex in a colour of its own, as scanners write it. */
function scan(colorOf: (v: number) => readonly [number, number, number], count = 4000): Uint8Array {
  const vertices = Array.from({ length: count }, (_, v) => `${v / 100} ${v % 2} 0 ${colorOf(v).join(' ')}`);
  const faces = Array.from({ length: count - 2 }, (_, v) => `3 ${v} ${v + 1} ${v + 2}`);
  return new TextEncoder().encode(
    [
      'ply',
      'format ascii 1.0',
      `element vertex ${count}`,
      ...['x', 'y', 'z'].map((axis) => `property float ${axis}`),
      ...['red', 'green', 'blue'].map((colour) => `property uchar ${colour}`),
      `element face ${count - 2}`,
      'property list uchar int vertex_indices',
      'end_header',
      ...vertices,
      ...faces,
    ].join('\n'),
  );
}

test('vertex colours that a camera saw are shown as they are, and it is said; painted ones are lit', async () => {
  const seen = await readModel(
    scan((v) => [(v * 7) % 256, (v * 13) % 256, (v * 31) % 253]),
    'room.ply',
  );
  expect(seen.materials[0]).toMatchObject({ unlit: true });
  expect(seen.notes.join()).toMatch(/photographed/);
  // A grey for every occlusion, in three paints.
  const painted = await readModel(
    scan((v) => [v % 256, (v % 256) >> (v % 3), 10]),
    'bench.ply',
  );
  expect(painted.materials[0]!.unlit).toBeUndefined();
  expect(painted.notes.join()).not.toMatch(/photographed/);
});

test('a glTF material that says so is unlit (KHR_materials_unlit)', async () => {
  const document = new Document();
  const buffer = document.createBuffer();
  const unlit = document.createExtension(KHRMaterialsUnlit).createUnlit();
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document
        .createAccessor()
        .setType('VEC3')
        .setArray(new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]))
        .setBuffer(buffer),
    )
    .setMaterial(document.createMaterial('Backdrop').setExtension('KHR_materials_unlit', unlit));
  document.createScene().addChild(document.createNode('Wall').setMesh(document.createMesh().addPrimitive(primitive)));
  const bytes = await new NodeIO().registerExtensions([KHRMaterialsUnlit]).writeBinary(document);
  const { materials } = await readModel(bytes, 'backdrop.glb');
  expect(materials[0]).toMatchObject({ name: 'Backdrop', unlit: true });
});
