import type { Pose, Vec3 } from '@eskovan/core/document';
import { dot, forwardOf, less } from '@eskovan/core/geometry';
import { Projection, throughLens } from '@eskovan/core/optics';
import { useRef, type HTMLAttributes, type RefObject } from 'react';
import { pickSeen } from './client.ts';
import { alongPicture, goRound, lookAround, rayThrough } from './eye.ts';
import { presumed } from './going.ts';
import { placeIn, type Hands } from './hands.ts';
import { useDevice } from './use-device.ts';
import { useWalking } from './use-walking.ts';
import { useWheel } from './use-wheel.ts';

/**
 * Left drag looks around (a picture without perspective is moved by it), the wheel goes forward and back along the
 * pointer, right drag goes round the point under it, Shift-drag slides; W A S D and the arrows walk on the floor.
 * @param time seconds into the move that the picture shows: where moving things are
 */
export function useHands(
  box: RefObject<HTMLDivElement | null>,
  hands: Hands | undefined,
  frame: { width: number; height: number },
  time: number | undefined,
): HTMLAttributes<HTMLDivElement> {
  const latest = useRef({ hands, frame });
  latest.current = { hands, frame };
  const drag = useRef<{
    x: number;
    y: number;
    mode: 'look' | 'slide' | 'round';
    centre: [number, number, number] | null;
    /** Pixels that the pointer has gone since it was pressed. */
    way: number;
  } | null>(null);

  useWheel(box, latest, time);
  const keys = useWalking(latest);
  useDevice(latest, hands?.device ?? null);
  if (!hands) return {};

  return {
    ...keys,
    onContextMenu: (event) => event.preventDefault(),
    onPointerDown: (event) => {
      if (event.target instanceof Element && event.target.closest('button, input, a, [role="menu"]')) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.focus({ preventScroll: true });
      const straight = hands.lens.parallel !== undefined;
      const mode = event.button === 2 ? 'round' : event.shiftKey || straight ? 'slide' : 'look';
      drag.current = { x: event.clientX, y: event.clientY, mode, centre: null, way: 0 };
      const eye = hands.eye();
      if (mode === 'look' || straight || !eye) return;
      const [x, y] = placeIn(event, frame);
      const ray = rayThrough(eye, hands.lens, frame.width / frame.height, x, y);
      const { from, direction } = ray;
      const started = drag.current;
      void pickSeen(ray, time).then((hit) => {
        // Nothing under the pointer: a point a few steps ahead.
        started.centre =
          hit?.point ??
          (from.map((value, k) => value + direction[k]! * presumed(hands.ground)) as [number, number, number]);
      });
    },
    onPointerMove: (event) => {
      const eye = drag.current && hands.eye();
      if (!drag.current || !eye) return;
      const [dx, dy] = [event.clientX - drag.current.x, event.clientY - drag.current.y];
      drag.current.way += Math.hypot(dx, dy);
      drag.current.x = event.clientX;
      drag.current.y = event.clientY;
      const projection = new Projection(throughLens(hands.lens), frame.width / frame.height);
      const { left, right } = projection.edges;
      const perPixel = (right - left) / frame.width;
      // What is under the pointer stays under it.
      const metres =
        hands.lens.parallel === undefined
          ? perPixel * deepAt(eye, drag.current.centre, presumed(hands.ground))
          : hands.lens.parallel / frame.height;
      if (drag.current.mode === 'look') hands.onMove(lookAround(eye, dx * perPixel, dy * perPixel));
      else if (drag.current.mode === 'slide') hands.onMove(alongPicture(eye, -dx * metres, dy * metres));
      else if (drag.current.centre) hands.onMove(goRound(eye, drag.current.centre, -dx * 0.006, -dy * 0.006));
    },
    onPointerUp: (event) => {
      const done = drag.current;
      drag.current = null;
      const eye = hands.eye();
      if (!done || !eye || !hands.onPress || done.mode === 'round' || done.way > 4) return;
      const [x, y] = placeIn(event, frame);
      void pickSeen(rayThrough(eye, hands.lens, frame.width / frame.height, x, y), time).then(hands.onPress);
    },
    onPointerCancel: () => (drag.current = null),
  };
}

/** How deep in the picture a point lies, metres; while it is not known, so deep. */
function deepAt({ position, orientation }: Pose, point: Readonly<Vec3> | null, unknown: number): number {
  if (!point) return unknown;
  const deep = dot(less(point, position), forwardOf(orientation));
  return deep > 0 ? deep : unknown;
}
