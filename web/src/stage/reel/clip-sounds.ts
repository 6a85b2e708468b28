import type { ClipSound } from '@eskovan/render';
import { readClip } from './clip-reader.ts';

/** So much more than is heard is read on both sides, seconds: a clip that is slipped a little is there already. */
const MARGIN = 5;
/** So many stretches are kept, the latest. */
const KEPT = 8;

interface Kept {
  sha256: string;
  from: number;
  to: number;
  sound: Promise<ClipSound | null>;
}
let kept: readonly Kept[] = [];

/**
 * What is heard of a clip between two times of its file, seconds; without channels where there is no sound in it, null where
 * it cannot be read. Asked again it is there.
 */
export function soundOfClip(sha256: string, from: number, to: number): Promise<ClipSound | null> {
  const known = kept.find((one) => one.sha256 === sha256 && one.from <= from && one.to >= to);
  const [first, last] = [Math.max(0, from - MARGIN), to + MARGIN];
  const one = known ?? { sha256, from: first, to: last, sound: read(sha256, first, last) };
  kept = [...kept.filter((other) => other !== one), one].slice(-KEPT);
  return one.sound;
}

async function read(sha256: string, from: number, to: number): Promise<ClipSound | null> {
  try {
    return await readClip((remote) => remote.soundOf(sha256, from, to));
  } catch {
    kept = kept.filter((one) => one.sha256 !== sha256);
    return null;
  }
}
