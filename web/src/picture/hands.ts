import type { Lens, Pose } from '@eskovan/core/document';
import type { PointerEvent as ReactPointerEvent, RefObject } from 'react';
import type { HeldDevice } from '../desk/held-device.ts';
import type { Ground } from './eye.ts';
import type { PickedSurface } from './source.ts';

/** What the hands may do to the eye. */
export interface Hands {
  /** The eye as it is now; asked at the start of every gesture. */
  eye: () => Pose | null;
  /** Where the hands have put it. Never a view or a move: the scout. */
  onMove: (pose: Pose) => void;
  lens: Lens;
  /** A picture without perspective is made larger and smaller by the wheel. */
  onLens?: (lens: Lens, pose: Pose) => void;
  ground: Ground | null;
  eyeHeight: number;
  /** Walking and turning go at this part of their speed. */
  tempo?: number;
  /** What walks the eye besides keys and mouse. */
  device?: HeldDevice | null;
  /** A press that was no drag: what it met, or null. */
  onPress?: (hit: PickedSurface | null) => void;
}

/** The hands as they are now. */
export type Latest = RefObject<{ hands: Hands | undefined; frame: { width: number; height: number } }>;

/** Place of the pointer in the frame, −1…1. */
export function placeIn(
  event: ReactPointerEvent<HTMLElement> | WheelEvent,
  frame: { width: number; height: number },
): [number, number] {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  return [
    (event.clientX - box.left - box.width / 2) / (frame.width / 2),
    -(event.clientY - box.top - box.height / 2) / (frame.height / 2),
  ];
}
