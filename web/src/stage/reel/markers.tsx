import type { Marker } from '@eskovan/core/document';
import { frameAt, frameTime } from '@eskovan/core/reel';
import type { KeyboardEvent } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { RULER, type StripScale } from '../../strips/scales.ts';
import { useDrag } from '../../strips/use-drag.ts';
import type { OpenReel } from './open-reel.ts';

/** Places that somebody wants to find again, along the ruler: pressed one is there, dragged (or by keys) they go elsewhere. */
export function Markers({ open, scale }: { open: OpenReel; scale: StripScale }) {
  const { row, rate, plan } = open;
  const put = ({ id, name }: Marker, frame: number) => {
    const time = frameTime(Math.min(plan.frames, Math.max(0, frame)), rate);
    editBody('reel', row, `Move ${name}`, (body) => ({
      ...body,
      markers: (body.markers ?? []).map((one) => (one.id === id ? { ...one, time } : one)),
    }));
    workbench.set({ time, playing: false });
  };
  const drag = useDrag<Marker>((from, dx) => put(from, frameAt(scale.timeAt(scale.x(from.time) + dx), rate)));
  const onKey = (event: KeyboardEvent, marker: Marker) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(marker, Math.round((marker.time * rate.num) / rate.den) + by * (event.shiftKey ? 10 : 1));
  };
  return (row.body.markers ?? []).map((marker) => {
    const { id, time, name } = marker;
    return scale.shows(time) ? (
      <button
        key={id}
        type="button"
        aria-label={`Go to marker ${name}`}
        title={name}
        className="absolute h-6 w-6 -translate-x-1/2 cursor-ew-resize touch-none"
        style={{ left: scale.x(time), top: RULER - 16 }}
        onPointerDown={(event) => drag.begin(event, marker)}
        {...drag.hands}
        onClick={() => workbench.set({ time, playing: false })}
        onKeyDown={(event) => onKey(event, marker)}
      >
        <svg width="12" height="14" viewBox="0 0 12 14" className="mx-auto" aria-hidden>
          <path d="M1 1h10v8l-5 4-5-4z" fill="var(--ochre)" stroke="var(--paper)" />
        </svg>
      </button>
    ) : null;
  });
}
