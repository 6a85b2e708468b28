import { HEAVY, shareOf, thinMesh } from '@eskovan/core/site';
import { BufferAttribute, DataUtils, type BufferGeometry } from 'three';

/** Triangles of a whole site in pictures that move, and in those that rest; finished ones have all. */
const MOVING = 60_000;
const RESTING = 260_000;
/** Of any piece so many are left. */
const LEAST = 4;

/** Index buffers of one piece of geometry, from coarse to whole; all on the same vertices. */
export interface Levels {
  moving: BufferAttribute;
  resting: BufferAttribute;
  whole: BufferAttribute;
}

/** How many triangles a piece of a heavy site may have in each; null where the site is light enough to be drawn whole. */
export interface LevelShares {
  moving: number;
  resting: number;
}

/** @param counts triangles of all pieces of the site */
export function levelShares(counts: readonly number[]): LevelShares | null {
  if (counts.reduce((sum, count) => sum + count, 0) <= HEAVY) return null;
  return { moving: shareOf(counts, MOVING), resting: shareOf(counts, RESTING) };
}

/** Coarser stand-ins for a piece of a heavy site. */
export async function makeLevels(geometry: BufferGeometry, { moving, resting }: LevelShares): Promise<Levels> {
  const whole = geometry.index!;
  const positions = geometry.getAttribute('position').array as Float32Array;
  // Most pieces stay whole.
  let shown: Float32Array | null = null;
  const thin = async (given: BufferAttribute, share: number): Promise<BufferAttribute> => {
    const target = 3 * Math.max(LEAST, Math.floor(share));
    if (target >= given.count) return given;
    shown ??= Float32Array.from(geometry.getAttribute('color').array, (half) => DataUtils.fromHalfFloat(half));
    const kept = await thinMesh(Uint32Array.from(given.array), positions, shown, target);
    return new BufferAttribute(positions.length / 3 > 65_535 ? kept : Uint16Array.from(kept), 1);
  };
  const rests = await thin(whole, resting);
  return { moving: await thin(rests, moving), resting: rests, whole };
}
