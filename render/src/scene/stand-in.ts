import { BufferAttribute, type BufferGeometry } from 'three';
import { MeshoptSimplifier } from 'meshoptimizer';

/** Triangles of a whole site in pictures that move, and in those that rest; finished ones have all. */
const MOVING = 60_000;
const RESTING = 260_000;
/** Sites up to this are drawn whole. */
const LIGHT_ENOUGH = 120_000;

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
  if (total <= LIGHT_ENOUGH) return null;
  await MeshoptSimplifier.ready;
  const whole = geometry.index!;
  const resting = simplify(geometry, RESTING / total);
  return { moving: simplify(geometry, MOVING / total), resting, whole };
}

function simplify(geometry: BufferGeometry, share: number): BufferAttribute {
  const whole = geometry.index!;
  const count = whole.count / 3;
  const target = Math.max(4, Math.round(count * share)) * 3;
  if (target >= whole.count) return whole;
  const indices = Uint32Array.from(whole.array);
  const positions = geometry.getAttribute('position').array as Float32Array;
  // Careful simplification of a million triangles takes seconds; merging what is near takes a tenth of one, and
  // serves for pictures that pass.
  const [kept] = MeshoptSimplifier.simplifySloppy(indices, positions, 3, null, target, 1);
  return new BufferAttribute(positions.length / 3 > 65_535 ? Uint32Array.from(kept) : Uint16Array.from(kept), 1);
}
