import { seesThrough, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { cornerArea, TRIANGLE } from '@eskovan/core/geometry';
import type { OccluderFaces } from '@eskovan/core/optics';

/** Faces that may hide something, at most: more cost more than they hide. */
const MOST = 10_000;

/**
 * The largest faces that nothing is seen through.
 * @param stands does a part stay where it is, and is always there?
 */
export function occludersOf(model: SceneModel, stands: (part: ScenePart) => boolean): OccluderFaces {
  const parts = model.parts.filter((part) => stands(part) && isSolid(model, part));
  const areas = new Float32Array(parts.reduce((sum, { indices }) => sum + indices.length / 3, 0));
  let face = 0;
  for (const { positions, indices } of parts)
    for (let i = 0; i < indices.length; i += 3, face += 1)
      areas[face] = cornerArea(positions, 3 * indices[i]!, 3 * indices[i + 1]!, 3 * indices[i + 2]!);
  const least = areas.length > MOST ? areas.slice().sort()[areas.length - MOST]! : 0;
  const count = Math.min(MOST, areas.length);
  const soup = new Float32Array(TRIANGLE * count);
  const [twoSided, sizes] = [new Uint8Array(count), new Float32Array(count)];
  let taken = 0;
  face = 0;
  for (const { positions, indices, material } of parts)
    for (let i = 0; i < indices.length && taken < count; i += 3, face += 1) {
      if (areas[face]! < least) continue;
      for (let corner = 0; corner < 3; corner += 1)
        for (let k = 0; k < 3; k += 1)
          soup[TRIANGLE * taken + 3 * corner + k] = positions[3 * indices[i + corner]! + k]!;
      twoSided[taken] = model.materials[material]!.doubleSided ? 1 : 0;
      sizes[taken] = Math.sqrt(areas[face]!);
      taken += 1;
    }
  return { soup, twoSided, sizes };
}

/** A picture on it may have holes; what is thinly painted lets a little through. */
function isSolid({ materials }: SceneModel, part: ScenePart): boolean {
  const material = materials[part.material]!;
  return !seesThrough(material) && material.opacity >= 0.99 && material.maskTexture === undefined;
}
