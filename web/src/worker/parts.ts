import type { Bounds } from '@eskovan/core/document';
import { cameWith, type SceneModel } from '@eskovan/core/format';
import { boundsOf, joinBounds } from '@eskovan/core/geometry';
import { materialName } from '@eskovan/core/site';

/** A material as its file has it; the colour is linear. */
export interface PartMaterial {
  name: string;
  color: [number, number, number];
  roughness: number;
  textured: boolean;
  /** Gives off light. */
  glows: boolean;
}

/** One named part of a site, whatever number of pieces it has. */
export interface PartInfo {
  model: string;
  name: string;
  /** As many as its file has: what light needs beyond them is not counted. */
  triangles: number;
  bounds: Bounds;
  /** What it is made of, as it came. */
  materials: PartMaterial[];
  role: string | null;
  /** The joint that carries it, where something can. */
  joint?: number;
}

export function describeParts(site: SceneModel): PartInfo[] {
  const known = new Map<string, PartInfo>();
  for (const part of site.parts) {
    const model = part.model ?? '';
    const key = `${model}\n${part.name}`;
    const bounds = boundsOf(part.positions);
    const info = known.get(key);
    const made = site.materials[part.material]!;
    const material = {
      name: materialName(made),
      color: made.color,
      roughness: made.roughness,
      textured: made.texture !== null,
      glows: Math.max(...made.emissive) > 0,
    };
    if (!info) {
      known.set(key, {
        model,
        name: part.name,
        triangles: cameWith(part),
        bounds,
        materials: [material],
        role: part.role ?? null,
        ...(part.joint === undefined ? {} : { joint: part.joint }),
      });
      continue;
    }
    info.triangles += cameWith(part);
    if (info.materials.every(({ name }) => name !== material.name)) info.materials.push(material);
    info.bounds = joinBounds([info.bounds, bounds])!;
  }
  return [...known.values()];
}
