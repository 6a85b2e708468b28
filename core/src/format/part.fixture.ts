import type { BufferGeometry } from 'three';
import type { ScenePart } from './scene-model.ts';

/** A part from a geometry: an indexed one with normals. */
export const partOf = (geometry: BufferGeometry, material = 0): ScenePart => ({
  name: 'part',
  material,
  positions: Float32Array.from(geometry.getAttribute('position').array),
  normals: Float32Array.from(geometry.getAttribute('normal').array),
  uvs: null,
  light: null,
  indices: Uint32Array.from(geometry.index!.array),
});
