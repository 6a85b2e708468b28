import { seesThrough, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { cornerArea, TRIANGLE } from '@eskovan/core/geometry';
import type { OccluderFaces } from '@eskovan/core/optics';
import { detailOf } from './chunks.ts';
import { surfaceSizes } from './surface-sizes.ts';

/** Faces that may hide something, at most: more cost more than they hide. */
const MOST = 6000;

/**
 * The largest faces that nothing is seen through, of surfaces that every picture shows.
 * @param stands does a part stay where it is, and is always there?
 */
export function occludersOf(model: SceneModel, stands: (part: ScenePart) => boolean): OccluderFaces {
  const parts = model.parts.filter((part) => stands(part) && isSolid(model, part));
  const areas = parts.map(facesOf);
  const all = new Float32Array(areas.reduce((sum, list) => sum + list.length, 0));
  areas.reduce((at, list) => (all.set(list, at), at + list.length), 0);
  all.sort();
  const some = all.length - all.findIndex((area) => area > 0);
  const count = Math.min(MOST, all.at(-1)! > 0 ? some : 0);
  const least = all[all.length - count] ?? Infinity;
  // Of faces of the least size only as many as there is room for.
  let room = count - (all.length - (all.lastIndexOf(least) + 1));
  const soup = new Float32Array(TRIANGLE * count);
  const [twoSided, sizes] = [new Uint8Array(count), new Float32Array(count)];
  let taken = 0;
  parts.forEach(({ positions, indices, material }, part) => {
    for (let face = 0; 3 * face < indices.length && taken < count; face += 1) {
      const area = areas[part]![face]!;
      if (area < least || (area === least && room <= 0)) continue;
      if (area === least) room -= 1;
      for (let corner = 0; corner < 3; corner += 1)
        for (let k = 0; k < 3; k += 1)
          soup[TRIANGLE * taken + 3 * corner + k] = positions[3 * indices[3 * face + corner]! + k]!;
      twoSided[taken] = model.materials[material]!.doubleSided ? 1 : 0;
      sizes[taken] = Math.sqrt(area);
      taken += 1;
    }
  });
  return { soup, twoSided, sizes };
}

/** Areas of a part's faces, m²; nothing where a picture in passing may leave the surface out. */
function facesOf({ positions, indices }: ScenePart): Float32Array {
  const surfaces = surfaceSizes(positions, indices);
  return Float32Array.from(surfaces, (size, face) => {
    if (detailOf(size).reach < Infinity) return 0;
    return cornerArea(positions, 3 * indices[3 * face]!, 3 * indices[3 * face + 1]!, 3 * indices[3 * face + 2]!);
  });
}

/** A picture on it may have holes; what is thinly painted lets a little through. */
function isSolid({ materials }: SceneModel, part: ScenePart): boolean {
  const material = materials[part.material]!;
  return !seesThrough(material) && material.opacity >= 0.99 && material.maskTexture === undefined;
}
