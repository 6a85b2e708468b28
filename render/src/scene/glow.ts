import { DataTexture, type MeshBasicMaterial, type Texture } from 'three';

/** What shines by a picture: the picture, and the light that it is multiplied by (linear). */
export interface Glow {
  map: Texture;
  color: readonly [number, number, number];
}

/** Adds what shines to an unlit material. The picture lies where the material's own one does. */
export function addGlow(material: MeshBasicMaterial, { map, color }: Glow): void {
  if (!material.map) {
    material.map = new DataTexture(Uint8Array.of(255, 255, 255, 255), 1, 1);
    material.map.needsUpdate = true;
  }
  material.onBeforeCompile = (shader) => {
    shader.uniforms['glowMap'] = { value: map };
    shader.uniforms['glowColor'] = { value: [...color] };
    shader.fragmentShader = `uniform sampler2D glowMap;\nuniform vec3 glowColor;\n${shader.fragmentShader}`.replace(
      '#include <opaque_fragment>',
      'outgoingLight += texture2D(glowMap, vMapUv).rgb * glowColor;\n#include <opaque_fragment>',
    );
  };
  material.customProgramCacheKey = () => 'glow';
}
