import type { Material } from '@gltf-transform/core';
import type { EmissiveStrength, PBRSpecularGlossiness, Transmission } from '@gltf-transform/extensions';
import { PLAIN_MATERIAL, type SceneMaterial, type SceneTexture } from '../scene-model.ts';

/** Turns materials into what the picture needs, each once. */
export class MaterialReader {
  readonly materials: SceneMaterial[] = [];
  readonly textures: SceneTexture[] = [];
  private readonly index = new Map<Material | null, number>();
  private readonly images = new Map<Uint8Array, number>();

  indexOf(material: Material | null): number {
    let index = this.index.get(material);
    if (index === undefined) this.index.set(material, (index = this.materials.push(this.read(material)) - 1));
    return index;
  }

  private read(material: Material | null): SceneMaterial {
    if (!material) return { ...PLAIN_MATERIAL };
    const old = material.getExtension<PBRSpecularGlossiness>('KHR_materials_pbrSpecularGlossiness');
    const [r, g, b, a] = old?.getDiffuseFactor() ?? material.getBaseColorFactor();
    const transmission =
      material.getExtension<Transmission>('KHR_materials_transmission')?.getTransmissionFactor() ?? 0;
    const blended = material.getAlphaMode() === 'BLEND';
    const strength =
      material.getExtension<EmissiveStrength>('KHR_materials_emissive_strength')?.getEmissiveStrength() ?? 1;
    const texture = old?.getDiffuseTexture() ?? material.getBaseColorTexture();
    const image = texture?.getImage();
    return {
      name: material.getName() || 'Plain',
      color: [r, g, b],
      // What lets light through is drawn as clear glass: refraction is not.
      opacity: Math.min(blended ? a : 1, 1 - 0.85 * transmission),
      roughness: old ? 1 - old.getGlossinessFactor() : material.getRoughnessFactor(),
      metalness: old ? 0 : material.getMetallicFactor(),
      emissive: material.getEmissiveFactor().map((value) => value * strength) as SceneMaterial['emissive'],
      doubleSided: material.getDoubleSided(),
      texture: image?.byteLength ? this.texture(image, texture!.getMimeType()) : null,
    };
  }

  private texture(bytes: Uint8Array, mediaType: string): number {
    let index = this.images.get(bytes);
    if (index === undefined) this.images.set(bytes, (index = this.textures.push({ bytes, mediaType }) - 1));
    return index;
  }
}
