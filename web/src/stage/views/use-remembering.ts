import { sameValues, type Frame, type Lens, type Pose } from '@eskovan/core/document';
import { standing } from '@eskovan/core/move';
import { useEffect, useRef } from 'react';
import { forget, openRecent, remember, setRecentPicture, useRecent } from '../../desk/recent.ts';
import { drawStill } from '../../picture/client.ts';
import { poseDistance } from '../../picture/eye.ts';
import { useLengthUnit } from '../../kit/index.ts';
import { sizeAcross } from '../../picture/source.ts';

/** Who rests so long somewhere has looked, milliseconds. */
const LOOKED = 2500;
/** Cameras nearer to each other than this are one look that was bettered: metres, degrees. */
const SAME_LOOK = { metres: 0.4, degrees: 6 } as const;
const WIDTH = 144;

interface Looked {
  projectId: string;
  /** The free eye; null while it is not away from a view. */
  scout: Pose | null;
  lens: Lens;
  light: string | null | undefined;
  frame: Frame | undefined;
  aspect: number;
  /** Is there a picture to look at? */
  shown: boolean;
}

/** Remembers where the free eye rested: nobody loses a good look by looking on, or by a reload. */
export function useRemembering({ projectId, scout, lens, light, frame, aspect, shown }: Looked): void {
  /** What was remembered last of the same way of scouting. */
  const last = useRef<string | null>(null);
  useEffect(() => openRecent(projectId), [projectId]);
  const away = scout !== null;
  const { steps } = useLengthUnit();
  useEffect(() => {
    if (!away) last.current = null;
  }, [away]);
  useEffect(() => {
    if (!scout || !shown) return;
    const timer = setTimeout(() => {
      const before = useRecent.getState().list.find(({ id }) => id === last.current);
      if (before && isSameLook(before, { pose: scout, lens }, steps)) forget(projectId, before.id);
      const id = remember(projectId, { pose: scout, lens, light: light ?? null, ...(frame && { frame }) });
      if (!id) return;
      last.current = id;
      // What is shown just now is what is remembered: its own worker has it at hand.
      drawStill(standing(scout, lens), sizeAcross(WIDTH, aspect), 4)
        .then(asDataUrl)
        .then((picture) => setRecentPicture(projectId, id, picture))
        // Without a picture it can still be looked at and kept.
        .catch(() => {});
    }, LOOKED);
    return () => clearTimeout(timer);
  }, [projectId, scout, lens, light, frame, aspect, shown, steps]);
}

type Camera = Pick<Looked, 'lens'> & { pose: Pose };

function isSameLook(a: Camera, b: Camera, steps: number): boolean {
  const { metres, degrees } = poseDistance(a.pose, b.pose);
  return metres < SAME_LOOK.metres * steps && degrees < SAME_LOOK.degrees && sameValues(a.lens, b.lens);
}

const asDataUrl = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error!);
    reader.readAsDataURL(blob);
  });
