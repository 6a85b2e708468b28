import type { BufferGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneModel } from '../format/index.ts';
import type { TriangleSoup } from '../geometry/index.ts';

/** Triangles of a geometry of the reference library. */
export function soupOf(geometry: BufferGeometry): TriangleSoup {
  const flat = geometry.index ? geometry.toNonIndexed() : geometry;
  return Float32Array.from(flat.getAttribute('position').array);
}

/** A model of one plain part. */
export const modelOf = (soup: TriangleSoup): SceneModel => ({
  parts: [
    {
      name: 'Part',
      material: 0,
      positions: soup,
      normals: new Float32Array(soup.length),
      uvs: null,
      light: null,
      indices: Uint32Array.from({ length: soup.length / 3 }, (_, i) => i),
    },
  ],
  materials: [PLAIN_MATERIAL],
  textures: [],
});
