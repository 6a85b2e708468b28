import type { SceneMaterial } from '@eskovan/core/format';

/** Up to the first roughness a metal mirrors all that is seen of it; from the second on it is matt. */
const MATT = [0.6, 1] as const;

/**
 * How much of a surface is seen by what it mirrors, 0…1; the rest is matt, in its own colour. The lobe of a very rough
 * metal is as wide as the sky: light that was gathered for the place tells better what it throws back than one picture
 * around the eye, and files that say nothing of a surface mean such a metal (glTF 2.0, 5.22: metallicFactor and
 * roughnessFactor are 1 by default).
 */
export function mirrorPart({ metalness, roughness }: Pick<SceneMaterial, 'metalness' | 'roughness'>): number {
  const [from, to] = MATT;
  const t = Math.min(1, Math.max(0, (roughness - from) / (to - from)));
  return metalness * (1 - t * t * (3 - 2 * t));
}
