import type { Bounds } from '@eskovan/core/document';
import { cameWith, glows, seesThrough, type SceneModel } from '@eskovan/core/format';
import { boundsOf, joinBounds, outlineEffort, outlineOf } from '@eskovan/core/geometry';
import { materialName } from '@eskovan/core/site';

/** A material as its file has it; the colour is linear. */
export interface PartMaterial {
  name: string;
  color: [number, number, number];
  roughness: number;
  textured: boolean;
  /** Gives off light. */
  glows: boolean;
  /** Is seen through. */
  clear: boolean;
  /** Is shown as it is: its colours hold their light. */
  unlit: boolean;
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
  /** What of it sticks out farthest, three numbers a corner; absent where that is its box, or would take too long to find. */
  outline?: Float32Array;
  /** The joint that carries it, where something can. */
  joint?: number;
}

/** Outlines are found for so much in all, a second or two: what is not reached is held by its box. */
const MOST_EFFORT = 4e8;
/** Outlines that were found, by the first piece of their part: parts are listed again and again, and stay as they are. */
const outlines = new WeakMap<Float32Array, { corners: number; outline: Float32Array }>();
/** Are corners those of a box along the axes? */
const isBox = (corners: Float32Array, { min, max }: Bounds) =>
  corners.length === 24 && corners.every((value, i) => value === min[i % 3] || value === max[i % 3]);

export function describeParts(site: SceneModel): PartInfo[] {
  const known = new Map<string, PartInfo>();
  const pieces = new Map<PartInfo, Float32Array[]>();
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
      glows: glows(made),
      clear: seesThrough(made),
      unlit: made.unlit ?? false,
    };
    if (!info) {
      const made: PartInfo = {
        model,
        name: part.name,
        triangles: cameWith(part),
        bounds,
        materials: [material],
        role: part.role ?? null,
        ...(part.joint === undefined ? {} : { joint: part.joint }),
      };
      known.set(key, made);
      pieces.set(made, [part.positions]);
      continue;
    }
    pieces.get(info)!.push(part.positions);
    info.triangles += cameWith(part);
    if (info.materials.every(({ name }) => name !== material.name)) info.materials.push(material);
    info.bounds = joinBounds([info.bounds, bounds])!;
  }
  let effort = 0;
  // The small ones first: of one large part the others would get nothing.
  const bySize = [...pieces].map(([info, of]) => ({
    info,
    of,
    corners: of.reduce((n, { length }) => n + length / 3, 0),
  }));
  for (const { info, of, corners } of bySize.sort((a, b) => a.corners - b.corners)) {
    effort += outlineEffort(corners);
    if (effort > MOST_EFFORT) break;
    const known = outlines.get(of[0]!);
    const outline = known?.corners === corners ? known.outline : outlineOf(of);
    outlines.set(of[0]!, { corners, outline });
    if (!isBox(outline, info.bounds)) info.outline = outline;
  }
  return [...known.values()];
}
