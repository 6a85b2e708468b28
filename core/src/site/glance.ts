import { MeshoptSimplifier } from 'meshoptimizer';
import type { SiteLight } from '../document/index.ts';
import {
  countTriangles,
  packLampLight,
  packModel,
  withUsedVertices,
  type SceneModel,
  type ScenePart,
} from '../format/index.ts';
import { boundsOf } from '../geometry/index.ts';

/** Sites with more triangles than this are opened through a glance. */
export const HEAVY = 130_000;
/** Triangles of a glance. */
const GLANCE = 50_000;
/** Parts this simple are kept as they are: thinning a box leaves no box. */
const SIMPLE = 40;

/**
 * Thins a mesh by merging what is near. Careful simplification of a million triangles takes seconds; this takes a
 * tenth of one, and serves for pictures that pass.
 * @param positions three numbers a vertex
 * @param target indices wanted, about
 * @returns indices of the same vertices
 */
export async function thinIndices(indices: Uint32Array, positions: Float32Array, target: number): Promise<Uint32Array> {
  await MeshoptSimplifier.ready;
  return MeshoptSimplifier.simplifySloppy(indices, positions, 3, null, target, 1)[0];
}

/**
 * A light stand-in for a heavy site, with the same names, materials and light: what is shown in the first second
 * after opening, until the whole has arrived. Large parts come first; what the budget does not reach is left out.
 * @returns null where the site is light enough to be shown whole at once
 */
export async function glanceOf(site: SceneModel, heavy = HEAVY, budget = GLANCE): Promise<SceneModel | null> {
  const total = countTriangles(site);
  if (total <= heavy) return null;
  const sized = site.parts.map((part) => ({ part, size: sizeOf(part) }));
  sized.sort((a, b) => b.size - a.size);
  const parts: ScenePart[] = [];
  let left = budget;
  for (const { part } of sized) {
    const count = part.indices.length / 3;
    const wanted = count <= SIMPLE ? count : Math.max(SIMPLE, Math.round((count * budget) / total));
    if (wanted > left) continue;
    const indices = wanted < count ? await thinIndices(part.indices, part.positions, 3 * wanted) : part.indices;
    if (indices.length === 0) continue;
    left -= indices.length / 3;
    parts.push(withUsedVertices({ ...part, indices }));
  }
  return { ...site, parts };
}

function sizeOf(part: ScenePart): number {
  const { min, max } = boundsOf(part.positions);
  return Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
}

/** A lit site as it is kept: packed, and a glance of it where it is heavy; of lamps alone what they give. */
export async function packLit(
  lit: SceneModel,
  { sky }: Pick<SiteLight, 'sky'>,
): Promise<{ scene: Uint8Array<ArrayBuffer>; glance: Uint8Array<ArrayBuffer> | null }> {
  if (sky === 'dark') return { scene: packLampLight(lit), glance: null };
  const thin = await glanceOf(lit);
  return { scene: packModel(lit), glance: thin && packModel(thin) };
}
