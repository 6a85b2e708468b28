import type { ScenePart } from './index.ts';
import type { BufferGeometry } from 'three';

/** A part of a model from a geometry of three's. */
export const partOf = (geometry: BufferGeometry, change: Partial<ScenePart> = {}): ScenePart => ({
  name: 'Part',
  material: 0,
  positions: Float32Array.from(geometry.getAttribute('position').array),
  normals: Float32Array.from(geometry.getAttribute('normal').array),
  uvs: null,
  light: null,
  indices: Uint32Array.from(geometry.index!.array),
  ...change,
});
