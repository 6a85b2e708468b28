import type { Row, ShotUse } from '@eskovan/core/document';
import type { PlannedShot } from '@eskovan/core/reel';
import { useEffect, useState } from 'react';
import { soundOfClip } from './clip-sounds.ts';
import { setShot } from './edit-reel.ts';
import { LoudnessField } from './loudness-field.tsx';
import type { OpenReel } from './open-reel.ts';

interface ClipSoundFieldProps {
  open: OpenReel;
  row: Row<'shot'>;
  use: Extract<ShotUse, { kind: 'clip' }>;
  planned: PlannedShot;
}

const SAID = {
  heard: '',
  none: 'There is no sound in its file.',
  unreadable: 'The sound in its file is coded in a way that this browser cannot read: it is silent.',
};

/** How loud the sound of a clip is, and whether it has any. */
export function ClipSoundField({ open, row, use, planned }: ClipSoundFieldProps) {
  const state = useHasSound(use, planned);
  const said = planned.backwards ? 'Backwards it is silent.' : state ? SAID[state] : '';
  return (
    <>
      {state !== 'none' && (
        <LoudnessField
          gain={use.gain ?? 1}
          onGain={(gain) =>
            setShot(open, row, 'Loudness', (body) =>
              body.use.kind === 'clip' ? { ...body, use: { ...body.use, gain } } : body,
            )
          }
        />
      )}
      {said && <p className="text-sm text-ink-faint">{said}</p>}
    </>
  );
}

/** What is known of the sound of a clip; null until its file has been looked into. */
function useHasSound(use: ClipSoundFieldProps['use'], { from, to }: PlannedShot) {
  const [state, setState] = useState<keyof typeof SAID | null>(null);
  const { sha256 } = use.file;
  useEffect(() => {
    let over = false;
    void soundOfClip(sha256, from, to).then((sound) => {
      if (!over) setState(sound === null ? 'unreadable' : sound.channels.length === 0 ? 'none' : 'heard');
    });
    return () => {
      over = true;
    };
  }, [sha256, from, to]);
  return state;
}
