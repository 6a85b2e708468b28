import { lengthText } from '@eskovan/core/document';
import { useState, type KeyboardEvent } from 'react';
import { useLengthUnit } from '../kit/index.ts';
import type { PlanHands } from './plan-hands.ts';
import { grown, isShown, panBy, zoomAt, type Viewport } from './viewport.ts';

/** A step of the cursor: plain, with Shift, with Alt; metres. */
const STEP = 0.25;
const LONG_STEP = 1;
const SHORT_STEP = 0.05;
/** A step of the whole plan, pixels. */
const PAN = 60;
/** A turn of who stands on the plan, radians. */
const TURN = Math.PI / 24;

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface PlanKeys {
  /** Where the next Enter presses, metres; null while nobody uses keys. */
  cursor: readonly [number, number] | null;
  /** The same in words. */
  words: string;
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
  hide: () => void;
}

/**
 * The plan by keys: with a tool in hand the arrows move a cursor and Enter presses there; without one they move the
 * plan. Plus and minus zoom, Home shows the whole.
 */
export function usePlanKeys(
  view: Viewport,
  size: { width: number; height: number },
  hands: PlanHands,
  setView: (view: Viewport | null) => void,
): PlanKeys {
  const [cursor, setCursor] = useState<readonly [number, number] | null>(null);
  const { width, height } = size;
  const lengths = useLengthUnit();
  const onArrow = ([dx, dz]: readonly [number, number], event: KeyboardEvent) => {
    if (!hands.onPress) {
      setView(panBy(view, -dx * PAN, -dz * PAN));
      return;
    }
    if (event.ctrlKey && hands.onTurn) {
      hands.onTurn(-dx * TURN);
      return;
    }
    const step = lengths.steps * (event.shiftKey ? LONG_STEP : event.altKey ? SHORT_STEP : STEP);
    const [x, z] = cursor ?? hands.from?.() ?? [view.x, view.z];
    const next = [x + dx * step, z + dz * step] as const;
    setCursor(next);
    hands.onHover?.(...next, 0);
    const area = grown({ minX: next[0], maxX: next[0], minZ: next[1], maxZ: next[1] }, 30 / view.scale);
    if (!isShown(area, view, width, height)) setView({ ...view, x: next[0], z: next[1] });
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    if (event.target !== event.currentTarget) return;
    const arrow = ARROWS[event.key];
    const zoom = { '+': 1.25, '=': 1.25, '-': 0.8 }[event.key];
    if (arrow) onArrow(arrow, event);
    else if (zoom) setView(zoomAt(view, width, height, width / 2, height / 2, zoom));
    else if (event.key === 'Home') setView(null);
    else if (event.key === 'Enter' && cursor && hands.onPress) {
      hands.onPress(...cursor, 0);
      hands.onRelease?.(...cursor);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    cursor: hands.onPress ? cursor : null,
    words:
      cursor && hands.onPress ? `${lengthText(cursor[0], lengths)} right, ${lengthText(cursor[1], lengths)} down` : '',
    onKeyDown,
    hide: () => setCursor(null),
  };
}
