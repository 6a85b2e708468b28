import type { Material, Texture, TextureInfo } from '@gltf-transform/core';
import type { EmissiveStrength, PBRSpecularGlossiness, Transform, Transmission } from '@gltf-transform/extensions';
import { PLAIN_MATERIAL, type SceneMaterial, type SceneTexture } from '../scene-model.ts';
import type { TexturePlace } from '../texture-place.ts';

/** A material as a part needs it: which, which set of texture places, and how its picture lies on them. */
export interface PartMaterial {
  material: number;
  /** Number of the set of texture places. */
  set: number;
  place: TexturePlace | null;
}

/** What is see-through by a picture is cut out where less than this is left of it. */
const HALF = 0.5;

/** Turns materials into what the picture needs, each once. */
export class MaterialReader {
  readonly materials: SceneMaterial[] = [];
  readonly textures: SceneTexture[] = [];
  readonly notes: string[] = [];
  private readonly index = new Map<Material | null, PartMaterial>();
  private readonly images = new Map<Uint8Array, number>();

  of(material: Material | null): PartMaterial {
    let known = this.index.get(material);
    if (!known) {
      const { info } = coverOf(material);
      const place = placeOf(info);
      known = { material: this.materials.push(this.read(material)) - 1, set: setOf(info), place };
      this.index.set(material, known);
    }
    return known;
  }

  private read(material: Material | null): SceneMaterial {
    if (!material) return { ...PLAIN_MATERIAL };
    const old = material.getExtension<PBRSpecularGlossiness>('KHR_materials_pbrSpecularGlossiness');
    const [r, g, b, a] = old?.getDiffuseFactor() ?? material.getBaseColorFactor();
    const transmission =
      material.getExtension<Transmission>('KHR_materials_transmission')?.getTransmissionFactor() ?? 0;
    const mode = material.getAlphaMode();
    const blended = mode === 'BLEND';
    const strength =
      material.getExtension<EmissiveStrength>('KHR_materials_emissive_strength')?.getEmissiveStrength() ?? 1;
    const { texture, info } = coverOf(material);
    const cover = this.texture(texture);
    const glow = this.texture(material.getEmissiveTexture());
    const name = material.getName() || 'Plain';
    if (glow !== null && cover !== null && setOf(material.getEmissiveTextureInfo()) !== setOf(info))
      this.notes.push(`The glow of “${name}” lies otherwise than its colour does; it is shown where the colour is.`);
    return {
      name,
      color: [r, g, b],
      // What lets light through is drawn as clear glass: refraction is not.
      opacity: Math.min(blended ? a : 1, 1 - 0.85 * transmission),
      roughness: old ? 1 - old.getGlossinessFactor() : material.getRoughnessFactor(),
      metalness: old ? 0 : material.getMetallicFactor(),
      emissive: material.getEmissiveFactor().map((value) => value * strength) as SceneMaterial['emissive'],
      doubleSided: material.getDoubleSided(),
      texture: cover,
      // Trees, people and railings come blended as often as masked: either way a picture says where they are.
      ...(cover !== null && (mode === 'MASK' || (blended && a > 0.99))
        ? { cutOut: mode === 'MASK' ? material.getAlphaCutoff() : HALF }
        : {}),
      ...(glow === null ? {} : { emissiveTexture: glow }),
      ...(material.getExtension('KHR_materials_unlit') ? { unlit: true } : {}),
    };
  }

  private texture(texture: Texture | null): number | null {
    const bytes = texture?.getImage();
    if (!bytes?.byteLength) return null;
    let index = this.images.get(bytes);
    if (index === undefined)
      this.images.set(bytes, (index = this.textures.push({ bytes, mediaType: texture!.getMimeType() }) - 1));
    return index;
  }
}

function coverOf(material: Material | null): { texture: Texture | null; info: TextureInfo | null } {
  const old = material?.getExtension<PBRSpecularGlossiness>('KHR_materials_pbrSpecularGlossiness');
  if (old) return { texture: old.getDiffuseTexture(), info: old.getDiffuseTextureInfo() };
  const texture = material?.getBaseColorTexture() ?? null;
  if (texture) return { texture, info: material!.getBaseColorTextureInfo() };
  // A picture of the glow alone still needs its places.
  return { texture: null, info: material?.getEmissiveTextureInfo() ?? null };
}

const setOf = (info: TextureInfo | null): number =>
  info?.getExtension<Transform>('KHR_texture_transform')?.getTexCoord() ?? info?.getTexCoord() ?? 0;

function placeOf(info: TextureInfo | null): TexturePlace | null {
  const transform = info?.getExtension<Transform>('KHR_texture_transform');
  if (!transform) return null;
  return {
    offset: transform.getOffset() as [number, number],
    scale: transform.getScale() as [number, number],
    turn: transform.getRotation(),
  };
}
