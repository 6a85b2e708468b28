import { useMemo, useRef, type PointerEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';
import { useStable } from '../kit/index.ts';

/** A press that moves less than this is none, pixels. */
const STILL = 2;

/**
 * Dragging something in a strip: one gesture from the press to its end, which a cancel takes back. The same hands as long
 * as the strip is there, and they always do the newest.
 * @param onDrag is told what was taken hold of, as it was then, how far the hand is from there, pixels, and which keys are held
 */
export function useDrag<T>(onDrag: (from: T, dx: number, dy: number, keys: { altKey: boolean }) => void) {
  const drag = useRef<{ x: number; y: number; from: T; gesture: Gesture | null } | null>(null);
  const tell = useStable(onDrag);
  return useMemo(() => {
    const onPointerMove = (event: PointerEvent) => {
      const held = drag.current;
      if (!held) return;
      const [dx, dy] = [event.clientX - held.x, event.clientY - held.y];
      if (!held.gesture && Math.hypot(dx, dy) < STILL) return;
      held.gesture ??= beginEdit();
      if (held.gesture.open) tell(held.from, dx, dy, event);
    };
    return {
      begin(event: PointerEvent, from: T): void {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, from, gesture: null };
      },
      hands: {
        onPointerMove,
        onPointerUp: (event: PointerEvent) => {
          onPointerMove(event);
          drag.current?.gesture?.commit();
          drag.current = null;
        },
        onPointerCancel: () => {
          drag.current?.gesture?.cancel();
          drag.current = null;
        },
        // A second press is no wish for another key.
        onDoubleClick: (event: { stopPropagation: () => void }) => event.stopPropagation(),
      },
    };
  }, [tell]);
}
