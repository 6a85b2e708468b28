import { DataTexture, type MeshBasicMaterial, type Texture } from 'three';
import { makeRadiant, type ToneUniforms } from './tone.ts';

/** A lamp is seen so much brighter than its material says: what it is meant to light is. By eye, no source. */
export const GLOW_SHOWN = 3.2;

/** What shines by a picture: the picture, and the light that it is multiplied by (linear). */
export interface Glow {
  map: Texture;
  /** Materials keep this very list: what is written into it is seen. */
  color: [number, number, number];
}

/** A radiant material with what shines on it. The picture lies where the material's own one does. */
export function makeShining(material: MeshBasicMaterial, tone: ToneUniforms, { map, color }: Glow): void {
  if (!material.map) {
    material.map = new DataTexture(Uint8Array.of(255, 255, 255, 255), 1, 1);
    material.map.needsUpdate = true;
  }
  makeRadiant(material, tone, { map: { value: map }, color: { value: color } });
}
