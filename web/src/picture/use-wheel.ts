import { less } from '@eskovan/core/geometry';
import { useEffect, type RefObject } from 'react';
import { pickSeen } from './client.ts';
import { alongPicture, approach, rayThrough } from './eye.ts';
import { presumed, wheelWay } from './going.ts';
import { placeIn, type Latest } from './hands.ts';

/** A wheel that has rested for so long may mean something else, milliseconds. */
const RESTED = 250;

/** The wheel leads towards what is under the pointer, by parts of the way: near a ring by millimetres, over hills by many metres. */
export function useWheel(box: RefObject<HTMLDivElement | null>, latest: Latest, time: number | undefined): void {
  useEffect(() => {
    const element = box.current;
    /** How far what is under the pointer was, how far one has gone towards it, and when the wheel was turned last. */
    let aim: { away: number; gone: number; turned: number } | null = null;
    const onWheel = (event: WheelEvent) => {
      const { hands, frame } = latest.current;
      const eye = hands?.eye();
      if (!hands || !eye) return;
      // The page must not scroll; React's own wheel listener could not say so.
      event.preventDefault();
      const [x, y] = placeIn(event, frame);
      const { parallel } = hands.lens;
      const aspect = frame.width / frame.height;
      if (parallel !== undefined) {
        const next = parallel * Math.exp(event.deltaY * 0.0015);
        const half = (parallel - next) / 2;
        hands.onLens?.({ ...hands.lens, parallel: next }, alongPicture(eye, x * half * aspect, y * half));
        return;
      }
      const ray = rayThrough(eye, hands.lens, aspect, x, y);
      if (!aim || event.timeStamp - aim.turned > RESTED) {
        const begun = { away: aim ? aim.away - aim.gone : presumed(hands.ground), gone: 0, turned: 0 };
        void pickSeen(ray, time).then((hit) => {
          if (hit) begun.away = Math.hypot(...less(hit.point, ray.from));
        });
        aim = begun;
      }
      const way = wheelWay(event.deltaY, aim.away - aim.gone, hands.ground);
      aim.gone += way;
      aim.turned = event.timeStamp;
      hands.onMove(approach(eye, ray.direction, way));
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  }, [box, latest, time]);
}
