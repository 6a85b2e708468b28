import { Document, NodeIO } from '@gltf-transform/core';
import { BoxGeometry } from 'three';

export interface BoxOptions {
  scale?: [number, number, number];
  translation?: [number, number, number];
  normals?: boolean;
  opacity?: number;
  nested?: boolean;
}

/** A unit box written by an independent library. */
export async function boxGlb(options: BoxOptions = {}): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const geometry = new BoxGeometry(1, 1, 1);
  const vec3 = (name: string) =>
    document
      .createAccessor()
      .setBuffer(buffer)
      .setType('VEC3')
      .setArray(Float32Array.from(geometry.getAttribute(name).array));
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', vec3('position'))
    .setIndices(document.createAccessor().setBuffer(buffer).setArray(Uint16Array.from(geometry.index!.array)))
    .setMaterial(
      document
        .createMaterial('Paint')
        .setBaseColorFactor([0.2, 0.4, 0.6, options.opacity ?? 1])
        .setAlphaMode(options.opacity === undefined ? 'OPAQUE' : 'BLEND'),
    );
  if (options.normals !== false) primitive.setAttribute('NORMAL', vec3('normal'));
  const node = document.createNode('Box').setMesh(document.createMesh('Box mesh').addPrimitive(primitive));
  if (options.scale) node.setScale(options.scale);
  if (options.translation) node.setTranslation(options.translation);
  const scene = document.createScene();
  scene.addChild(options.nested ? document.createNode('House').setTranslation([10, 0, 0]).addChild(node) : node);
  return new NodeIO().writeBinary(document);
}
