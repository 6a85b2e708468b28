import { cornerNormal, planWidth, type Body } from '../geometry/index.ts';
import type { ScenePart } from './scene-model.ts';

/** Narrower than this nothing is landscape, metres. */
export const LAND_WIDTH = 40;
/** Steeper faces than this (cosine to the vertical) are walls; landscape has hardly any. */
const STEEP = 0.3;
const MOST_STEEP = 0.02;

/** Is a part ground, not building: wide, and without walls? */
export function isLandscape(part: ScenePart): boolean {
  return part.role === 'terrain' || (planWidth(part.positions) >= LAND_WIDTH && !facesOf(part).walls);
}

/**
 * How the faces of a body lie: has it more steep ones than a landscape, and what share of its area looks down?
 * @param up number of the axis that is up
 */
export function facesOf({ positions: p, indices }: Body, up: 0 | 1 | 2 = 1): { walls: boolean; down: number } {
  const normal = new Float64Array(3);
  let [steep, down, total] = [0, 0, 0];
  for (let t = 0; t < indices.length; t += 3) {
    cornerNormal(p, 3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!, normal);
    const area = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    total += area;
    if (Math.abs(normal[up]!) < STEEP * area) steep += area;
    if (normal[up]! < 0) down += area;
  }
  return { walls: steep >= MOST_STEEP * total, down: down / (total || 1) };
}
