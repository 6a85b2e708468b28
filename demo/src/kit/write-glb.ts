import { Document, WebIO, type Buffer, type Node as GltfNode, type Scene } from '@gltf-transform/core';
import { Color } from 'three';
import type { Builder, Movement } from './builder.ts';
import { MATERIALS, type DemoMaterial, type MaterialName } from './materials.ts';
import { TEXTURE_MEAN, textureOf, TEXTURES, type TextureName } from './textures.ts';

const linear = (srgb: string): [number, number, number] => new Color(srgb).toArray() as [number, number, number];

/** A colour that is itself on average, under a picture; white ground has its colours in its corners. */
const brightened = (color: [number, number, number], texture: TextureName | undefined) =>
  texture && Math.min(...color) < 1
    ? (color.map((value) => Math.min(1, value / TEXTURE_MEAN)) as [number, number, number])
    : color;

/** Writes what was built as a GLB: one node a part, one primitive a material. */
export async function writeGlb(builder: Builder, title: string): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Ternholm generator';
  const buffer = document.createBuffer();
  const scene = document.createScene(title);
  document.getRoot().setDefaultScene(scene);
  const pictures = new Map(
    (Object.keys(TEXTURES) as TextureName[]).map((name) => [
      name,
      document.createTexture(name).setMimeType('image/png').setImage(textureOf(name)),
    ]),
  );
  const materials = new Map(
    (Object.keys(MATERIALS) as MaterialName[]).map((name) => {
      const look: DemoMaterial = MATERIALS[name];
      const material = document
        .createMaterial(name)
        .setBaseColorFactor([...brightened(linear(look.color), look.texture), look.opacity ?? 1])
        .setBaseColorTexture((look.texture && pictures.get(look.texture)) ?? null)
        .setRoughnessFactor(look.roughness ?? 0.9)
        .setMetallicFactor(look.metalness ?? 0)
        .setDoubleSided(look.doubleSided ?? false)
        .setAlphaMode(look.cutOut ? 'MASK' : look.opacity === undefined ? 'OPAQUE' : 'BLEND');
      // From afar a blade is a part of a pixel: less of it is enough to be seen.
      if (look.cutOut) material.setAlphaCutoff(0.3);
      if (look.glow) material.setEmissiveFactor(linear(look.glow));
      return [name, material] as const;
    }),
  );
  const carriers = new Map(builder.movements.map((movement) => [movement, carrier(document, scene, buffer, movement)]));
  for (const [name, batches] of builder.parts) {
    const mesh = document.createMesh(name);
    const movement = builder.movements.find(({ part }) => name === part || name.startsWith(`${part} / `));
    const pivot = movement?.pivot ?? [0, 0, 0];
    for (const [material, batch] of batches) {
      const floats = (values: readonly number[], type: 'VEC2' | 'VEC3' = 'VEC3') =>
        document.createAccessor().setBuffer(buffer).setType(type).setArray(new Float32Array(values));
      const { texture } = MATERIALS[material] as DemoMaterial;
      const tints = texture ? batch.colors.map((value) => value / TEXTURE_MEAN) : batch.colors;
      mesh.addPrimitive(
        document
          .createPrimitive()
          .setAttribute('POSITION', floats(batch.positions.map((value, k) => value - pivot[k % 3]!)))
          .setAttribute('NORMAL', floats(batch.normals))
          .setIndices(document.createAccessor().setBuffer(buffer).setArray(new Uint32Array(batch.indices)))
          .setMaterial(materials.get(material)!)
          .setAttribute('COLOR_0', tints.length > 0 ? floats(tints) : null)
          .setAttribute('TEXCOORD_0', batch.uvs.length > 0 ? floats(batch.uvs, 'VEC2') : null),
      );
    }
    const node = movement && carriers.get(movement)!;
    if (!node) scene.addChild(document.createNode(name).setMesh(mesh));
    else if (name === movement.part) node.setMesh(mesh);
    else node.addChild(document.createNode(name.slice(movement.part.length + 3)).setMesh(mesh));
  }
  for (const material of document.getRoot().listMaterials())
    if (material.listParents().length === 1) material.dispose();
  for (const picture of document.getRoot().listTextures()) if (picture.listParents().length === 1) picture.dispose();
  return new WebIO().writeBinary(document);
}

/** The node that a movement moves, with the movement's keys. */
function carrier(document: Document, scene: Scene, buffer: Buffer, { name, part, pivot, keys }: Movement): GltfNode {
  const node = document.createNode(part).setTranslation([...pivot]);
  scene.addChild(node);
  const times = document
    .createAccessor()
    .setBuffer(buffer)
    .setArray(Float32Array.from(keys, ({ time }) => time));
  const animation = document.createAnimation(name);
  const channel = (path: 'translation' | 'rotation', type: 'VEC3' | 'VEC4', values: readonly number[]) => {
    const output = document.createAccessor().setBuffer(buffer).setType(type).setArray(new Float32Array(values));
    const sampler = document.createAnimationSampler().setInput(times).setOutput(output);
    animation
      .addSampler(sampler)
      .addChannel(document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler));
  };
  channel(
    'translation',
    'VEC3',
    keys.flatMap(({ at }) => at),
  );
  channel(
    'rotation',
    'VEC4',
    keys.flatMap(({ turn }) => turn),
  );
  return node;
}
