import type { Burnt } from '@eskovan/core/check';
import { sameValues, type StillCamera } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { stopsToDraw, usePictureState } from './client.ts';

/** The picture that was seen sharply last. */
interface Seen {
  sample: CameraSample;
  /** The scene it is of; see `sceneKey`. */
  scene: string | null;
  /** How much of it is burnt out, 0…1. */
  part: number;
}

const useSeen = create<{ seen: Seen | null }>()(() => ({ seen: null }));

/** @param part how much of a picture is burnt out, 0…1 */
export function tellBurnt(sample: CameraSample, part: number): void {
  useSeen.setState({ seen: { sample, scene: usePictureState.getState().loaded, part } });
}

/** What a camera sees, as far as it is light; null where its picture was not seen sharply yet. */
export function useBurnt({ pose, lens }: StillCamera, aspect: number, allowed: number): Burnt | null {
  const seen = useSeen((state) => state.seen);
  const scene = usePictureState((state) => state.loaded);
  const [known, setKnown] = useState<{ of: Seen; allowed: number; darker: number } | null>(null);
  const current = seen && seen.scene === scene && isOf(seen.sample, { pose, lens }) ? seen : null;
  const tooMuch = current !== null && current.part > allowed;
  useEffect(() => {
    if (!tooMuch) return undefined;
    let asked = true;
    stopsToDraw(current.sample, aspect, allowed).then(
      (darker) => asked && setKnown({ of: current, allowed, darker }),
      // Without a picture it is only said that it burns.
      () => undefined,
    );
    return () => {
      asked = false;
    };
  }, [tooMuch, current, aspect, allowed]);
  if (!current) return null;
  return { part: current.part, darker: known?.of === current && known.allowed === allowed ? known.darker : null };
}

function isOf({ position, orientation, view, exposure }: CameraSample, { pose, lens }: StillCamera): boolean {
  const own = standing(pose, lens);
  return sameValues([position, orientation, view, exposure], [own.position, own.orientation, own.view, own.exposure]);
}
