import { Document, WebIO } from '@gltf-transform/core';
import { Color } from 'three';
import type { Builder } from './builder.ts';
import { MATERIALS, type DemoMaterial, type MaterialName } from './materials.ts';

const linear = (srgb: string): [number, number, number] => new Color(srgb).toArray() as [number, number, number];

/** Writes what was built as a GLB: one node a part, one primitive a material. */
export async function writeGlb(builder: Builder, title: string): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Ternholm generator';
  const buffer = document.createBuffer();
  const scene = document.createScene(title);
  document.getRoot().setDefaultScene(scene);
  const materials = new Map(
    (Object.keys(MATERIALS) as MaterialName[]).map((name) => {
      const look: DemoMaterial = MATERIALS[name];
      const material = document
        .createMaterial(name)
        .setBaseColorFactor([...linear(look.color), look.opacity ?? 1])
        .setRoughnessFactor(look.roughness ?? 0.9)
        .setMetallicFactor(look.metalness ?? 0)
        .setDoubleSided(look.doubleSided ?? false)
        .setAlphaMode(look.opacity === undefined ? 'OPAQUE' : 'BLEND');
      if (look.glow) material.setEmissiveFactor(linear(look.glow));
      return [name, material] as const;
    }),
  );
  for (const [name, batches] of builder.parts) {
    const mesh = document.createMesh(name);
    for (const [material, batch] of batches) {
      const floats = (values: number[]) =>
        document.createAccessor().setBuffer(buffer).setType('VEC3').setArray(new Float32Array(values));
      mesh.addPrimitive(
        document
          .createPrimitive()
          .setAttribute('POSITION', floats(batch.positions))
          .setAttribute('NORMAL', floats(batch.normals))
          .setIndices(document.createAccessor().setBuffer(buffer).setArray(new Uint32Array(batch.indices)))
          .setMaterial(materials.get(material)!)
          .setAttribute('COLOR_0', batch.colors.length > 0 ? floats(batch.colors) : null),
      );
    }
    scene.addChild(document.createNode(name).setMesh(mesh));
  }
  for (const material of document.getRoot().listMaterials())
    if (material.listParents().length === 1) material.dispose();
  return new WebIO().writeBinary(document);
}
