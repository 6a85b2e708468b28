import { ALL_LIT } from '@eskovan/core/document';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import type { Group } from 'three';
import { buildScene } from './build-scene.ts';

/**
 * A triangle of each common look in front of the eye. Drawing it once compiles the programs that nearly every picture
 * needs; they live as long as it does.
 */
export function warmUpScene(): Promise<Group> {
  const part: SceneModel['parts'][number] = {
    name: 'Triangle',
    material: 0,
    positions: Float32Array.of(-1, -1, -2, 1, -1, -2, 0, 1, -2),
    normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
    uvs: null,
    light: null,
    indices: Uint32Array.of(0, 1, 2),
  };
  const looks = [
    { doubleSided: false, opacity: 1 },
    { doubleSided: true, opacity: 1 },
    { doubleSided: true, opacity: 0.3 },
  ];
  const model: SceneModel = {
    parts: looks.map((_, material) => ({ ...part, material })),
    materials: looks.map((look) => ({ ...PLAIN_MATERIAL, ...look })),
    textures: [],
  };
  return buildScene(model, { look: 'natural', exposure: 0, light: { sun: [0, 1, 0], sky: 'clear', lamps: ALL_LIT } });
}
