import { useRef, type PointerEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';

/** A press that moves less than this is none, pixels. */
const STILL = 2;

/**
 * Dragging something in a strip: one gesture from the press to its end, which a cancel takes back.
 * @param onDrag is told what was taken hold of, as it was then, and how far the hand is from there, pixels
 */
export function useDrag<T>(onDrag: (from: T, dx: number, dy: number) => void) {
  const drag = useRef<{ x: number; y: number; from: T; gesture: Gesture | null } | null>(null);
  const onPointerMove = (event: PointerEvent) => {
    const held = drag.current;
    if (!held) return;
    const [dx, dy] = [event.clientX - held.x, event.clientY - held.y];
    if (!held.gesture && Math.hypot(dx, dy) < STILL) return;
    held.gesture ??= beginEdit();
    if (held.gesture.open) onDrag(held.from, dx, dy);
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
}
