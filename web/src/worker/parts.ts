import type { Bounds } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import { boundsOf, joinBounds } from '@eskovan/core/geometry';

/** One named part of a site, whatever number of pieces it has. */
export interface PartInfo {
  model: string;
  name: string;
  triangles: number;
  bounds: Bounds;
  /** Linear colour of its first material. */
  color: [number, number, number];
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
    if (!info) {
      const { color } = site.materials[part.material]!;
      known.set(key, {
        model,
        name: part.name,
        triangles: part.indices.length / 3,
        bounds,
        color,
        role: part.role ?? null,
        ...(part.joint === undefined ? {} : { joint: part.joint }),
      });
      continue;
    }
    info.triangles += part.indices.length / 3;
    info.bounds = joinBounds([info.bounds, bounds])!;
  }
  return [...known.values()];
}
