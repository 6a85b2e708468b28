import { HEAVY, thinIndices } from '@eskovan/core/site';
import { BufferAttribute, type BufferGeometry } from 'three';

/** Triangles of a whole site in pictures that move, and in those that rest; finished ones have all. */
const MOVING = 60_000;
const RESTING = 260_000;

/** Index buffers of one piece of geometry, from coarse to whole; all on the same vertices. */
export interface Levels {
  moving: BufferAttribute;
  resting: BufferAttribute;
  whole: BufferAttribute;
}

/**
 * Coarser stand-ins for a heavy site's geometry.
 * @param total triangles of the whole site
 * @returns null where the site is light enough to be drawn whole
 */
export async function makeLevels(geometry: BufferGeometry, total: number): Promise<Levels | null> {
  if (total <= HEAVY) return null;
  const whole = geometry.index!;
  const resting = await simplify(geometry, RESTING / total);
  return { moving: await simplify(geometry, MOVING / total), resting, whole };
}

async function simplify(geometry: BufferGeometry, share: number): Promise<BufferAttribute> {
  const whole = geometry.index!;
  const count = whole.count / 3;
  const target = Math.max(4, Math.round(count * share)) * 3;
  if (target >= whole.count) return whole;
  const positions = geometry.getAttribute('position').array as Float32Array;
  const kept = await thinIndices(Uint32Array.from(whole.array), positions, target);
  return new BufferAttribute(positions.length / 3 > 65_535 ? Uint32Array.from(kept) : Uint16Array.from(kept), 1);
}
