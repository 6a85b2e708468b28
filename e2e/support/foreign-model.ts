import { Document, NodeIO, type Material, type Node } from '@gltf-transform/core';
import { BoxGeometry, type BufferGeometry } from 'three';

/**
 * A geometry of one library as a node of another.
 * @param more what is written besides its positions, by the names of both
 */
export function nodeOf(
  document: Document,
  name: string,
  geometry: BufferGeometry,
  material: Material,
  more: Readonly<Record<string, 'normal' | 'uv'>> = {},
): Node {
  const buffer = document.getRoot().listBuffers()[0]!;
  const accessor = (array: ArrayLike<number>, type: 'VEC2' | 'VEC3' | 'SCALAR') =>
    document
      .createAccessor()
      .setBuffer(buffer)
      .setType(type)
      .setArray(type === 'SCALAR' ? Uint16Array.from(array) : Float32Array.from(array));
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor(geometry.getAttribute('position').array, 'VEC3'))
    .setIndices(accessor(geometry.index!.array, 'SCALAR'))
    .setMaterial(material);
  for (const [theirs, own] of Object.entries(more))
    primitive.setAttribute(theirs, accessor(geometry.getAttribute(own).array, own === 'uv' ? 'VEC2' : 'VEC3'));
  return document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
}

/**
 * A small house that nobody here drew: boxes of one library, written by another. Two rooms, a doorway, three steps
 * up to a platform, with nodes that are moved and scaled, and no normals on one of them.
 * @param at where a node above all others puts it, metres
 */
export async function foreignModel(at: [number, number, number] = [0, 0, 0]): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  const scene = document.createNode('Site').setTranslation(at);
  document.createScene('House').addChild(scene);
  const plain = document.createMaterial('Render').setBaseColorFactor([0.8, 0.75, 0.7, 1]).setRoughnessFactor(1);
  const floor = document.createMaterial('Floor').setBaseColorFactor([0.5, 0.4, 0.3, 1]);
  const add = (name: string, geometry: BufferGeometry, material = plain, withNormals = true) =>
    nodeOf(document, name, geometry, material, withNormals ? { NORMAL: 'normal' } : {});
  const box = (
    name: string,
    x0: number,
    y0: number,
    z0: number,
    x1: number,
    y1: number,
    z1: number,
    material = plain,
  ) => {
    const geometry = new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);
    scene.addChild(add(name, geometry, material));
  };
  box('Slab', 0, -0.2, 0, 10, 0, 6, floor);
  box('Roof', -0.3, 3, -0.3, 10.3, 3.2, 6.3);
  box('North wall', 0, 0, 0, 10, 3, 0.25);
  box('West wall', 0, 0, 0, 0.25, 3, 6);
  box('East wall', 9.75, 0, 0, 10, 3, 6);
  box('South wall west', 0, 0, 5.75, 2, 3, 6);
  box('South wall east', 4, 0, 5.75, 10, 3, 6);
  box('Partition north', 5, 0, 0.25, 5.12, 3, 2.4);
  box('Partition south', 5, 0, 3.4, 5.12, 3, 5.75);
  for (let n = 1; n <= 3; n += 1) box(`Step ${n}`, 5.9 + 0.3 * n, 0, 0.25, 9.75, 0.16 * n, 5.75, floor);
  // A table that is placed by its node: unit box, scaled and moved.
  scene.addChild(
    add('Table', new BoxGeometry(1, 1, 1), floor, false)
      .setTranslation([2.5, 0.375, 1.6])
      .setScale([1.4, 0.75, 0.8]),
  );
  return new NodeIO().writeBinary(document);
}
