import type { SiteLight } from '../document/index.ts';
import {
  countTriangles,
  packLampLight,
  packModel,
  withUsedVertices,
  type SceneModel,
  type ScenePart,
} from '../format/index.ts';
import { boundsOf, diagonalOf } from '../geometry/index.ts';
import { shareOf, thinMesh } from './thin.ts';

/** Sites with more triangles than this are opened through a glance. */
export const HEAVY = 145_000;
/** Triangles of a glance. */
const GLANCE = 50_000;
/** Parts this simple are kept as they are: thinning a box leaves no box. */
const SIMPLE = 40;

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
  // Half of it by size: a hill among a thousand things that are smaller than its share is still a hill.
  const share = shareOf(
    site.parts.map(({ indices }) => indices.length / 3),
    budget / 2,
  );
  const sizes = sized.reduce((sum, { size }) => sum + size, 0);
  let left = budget;
  for (const { part, size } of sized) {
    const count = part.indices.length / 3;
    const wanted = Math.min(count, Math.max(SIMPLE, Math.floor(share + (budget / 2) * (size / (sizes || 1)))));
    if (wanted > left) continue;
    const indices =
      wanted < count ? await thinMesh(part.indices, part.positions, lightOf(part), 3 * wanted) : part.indices;
    if (indices.length === 0 || indices.length / 3 > left) continue;
    left -= indices.length / 3;
    parts.push(withUsedVertices({ ...part, indices }));
  }
  return { ...site, parts };
}

/** Four numbers a vertex: all of its light. */
function lightOf({ positions, light }: ScenePart): Float32Array {
  const out = new Float32Array((positions.length / 3) * 4);
  if (!light) return out;
  for (let v = 0; v < light.sun.length; v += 1) {
    for (let k = 0; k < 3; k += 1) out[4 * v + k] = light.ambient[3 * v + k]!;
    out[4 * v + 3] = light.sun[v]!;
  }
  return out;
}

const sizeOf = (part: ScenePart): number => diagonalOf(boundsOf(part.positions));

/** A lit site as it is kept: packed, and a glance of it where it is heavy; of lamps alone what they give. */
export async function packLit(
  lit: SceneModel,
  { sky }: Pick<SiteLight, 'sky'>,
): Promise<{ scene: Uint8Array<ArrayBuffer>; glance: Uint8Array<ArrayBuffer> | null }> {
  if (sky === 'dark') return { scene: packLampLight(lit), glance: null };
  const thin = await glanceOf(lit);
  return { scene: packModel(lit), glance: thin && packModel(thin) };
}
