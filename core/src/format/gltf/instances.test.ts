import { Document, NodeIO } from '@gltf-transform/core';
import { EXTMeshGPUInstancing } from '@gltf-transform/extensions';
import { describe, expect, test } from '@jest/globals';
import { BoxGeometry } from 'three';
import { boundsOf } from '../../geometry/index.ts';
import { countTriangles, FormatError, readGlb } from '../index.ts';

/** A post of one metre that one node asks for many times, written by an independent library. */
async function row(places: Float32Array, sizes?: Float32Array): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const geometry = new BoxGeometry(0.1, 1, 0.1);
  const vectors = (array: Float32Array) => document.createAccessor().setBuffer(buffer).setType('VEC3').setArray(array);
  const post = document.createMesh('Post').addPrimitive(
    document
      .createPrimitive()
      .setAttribute('POSITION', vectors(Float32Array.from(geometry.getAttribute('position').array)))
      .setIndices(document.createAccessor().setBuffer(buffer).setArray(Uint16Array.from(geometry.index!.array))),
  );
  const extension = document.createExtension(EXTMeshGPUInstancing).setRequired(true);
  const instances = extension.createInstancedMesh().setAttribute('TRANSLATION', vectors(places));
  if (sizes) instances.setAttribute('SCALE', vectors(sizes));
  const node = document
    .createNode('Fence')
    .setMesh(post)
    .setTranslation([0, 0.5, 0])
    .setExtension('EXT_mesh_gpu_instancing', instances);
  document.createScene().addChild(node);
  return new NodeIO().registerExtensions([EXTMeshGPUInstancing]).writeBinary(document);
}

/** Nodes that share one mesh: a small file, however many triangles it comes to. */
async function manyNodes(nodes: number, triangles: number): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const position = document
    .createAccessor()
    .setBuffer(buffer)
    .setType('VEC3')
    .setArray(Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0));
  const indices = document
    .createAccessor()
    .setBuffer(buffer)
    .setArray(Uint16Array.from({ length: 3 * triangles }, (_, i) => i % 3));
  const mesh = document
    .createMesh('Sail')
    .addPrimitive(document.createPrimitive().setAttribute('POSITION', position).setIndices(indices));
  const scene = document.createScene();
  for (let i = 0; i < nodes; i += 1) scene.addChild(document.createNode(`Sail ${i}`).setMesh(mesh));
  return new NodeIO().writeBinary(document);
}

describe('copies of one mesh', () => {
  test('stand where the file says, each as large as it says', async () => {
    const places = Float32Array.of(0, 0, 0, 2, 0, 0, 4, 0, 1);
    const model = await readGlb(await row(places, Float32Array.of(1, 1, 1, 1, 2, 1, 1, 1, 1)), 'fence.glb');
    expect(model.parts.map(({ name }) => name)).toEqual(['Fence', 'Fence', 'Fence']);
    expect(countTriangles(model)).toBe(36);
    const bounds = model.parts.map(({ positions }) => boundsOf(positions));
    expect(bounds.map(({ min }) => min[0] + 0.05)).toEqual([0, 2, 4].map((x) => expect.closeTo(x, 6)));
    expect(bounds.map(({ max }) => max[1])).toEqual([1, 1.5, 1].map((y) => expect.closeTo(y, 6)));
  });

  test('are refused before they are made where they come to more than any memory holds', async () => {
    // A file of a few megabytes: a million posts are twelve million triangles.
    const many = await row(new Float32Array(3_000_000));
    const error: unknown = await readGlb(many, 'forest.glb').catch((reason: unknown) => reason);
    expect(error).toBeInstanceOf(FormatError);
    expect((error as FormatError).code).toBe('too-large');
    expect((error as FormatError).message).toMatch(/^forest\.glb: .*10,000,000 triangles.* Simplify it/);
  });

  test('whichever way they are asked for', async () => {
    const bytes = await manyNodes(1200, 10_000);
    expect(bytes.byteLength).toBeLessThan(400_000);
    await expect(readGlb(bytes, 'sails.glb')).rejects.toThrow(/more than 10,000,000 triangles/);
    expect(countTriangles(await readGlb(await manyNodes(5, 100), 'sails.glb'))).toBe(500);
  });
});
