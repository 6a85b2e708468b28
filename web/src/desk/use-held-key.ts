import { useEffect, useRef, type KeyboardEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';

/**
 * A key that is held down is one gesture: what each of its repeats does becomes one edit when it is let go. Put
 * `onKeyDown` before what the key does, and the others beside it.
 */
export function useHeldKey() {
  const gesture = useRef<Gesture | null>(null);
  const end = () => {
    gesture.current?.commit();
    gesture.current = null;
  };
  useEffect(() => end, []);
  return {
    onKeyDown: (event: Pick<KeyboardEvent, 'repeat'>) => {
      if (!event.repeat || !gesture.current?.open) {
        end();
        gesture.current = beginEdit();
      }
    },
    onKeyUp: end,
    onBlur: end,
  };
}
