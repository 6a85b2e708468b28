import { workbench } from '../../desk/workbench.ts';
import { RULER, type StripScale } from '../../strips/scales.ts';
import type { OpenReel } from './open-reel.ts';

/** Places that somebody wants to find again, along the ruler. */
export function Markers({ open, scale }: { open: OpenReel; scale: StripScale }) {
  return (open.row.body.markers ?? []).map(({ id, time, name }) =>
    scale.shows(time) ? (
      <button
        key={id}
        type="button"
        aria-label={`Go to marker ${name}`}
        title={name}
        className="absolute h-6 w-6 -translate-x-1/2"
        style={{ left: scale.x(time), top: RULER - 16 }}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => workbench.set({ time, playing: false })}
      >
        <svg width="12" height="14" viewBox="0 0 12 14" className="mx-auto" aria-hidden>
          <path d="M1 1h10v8l-5 4-5-4z" fill="var(--ochre)" stroke="var(--paper)" />
        </svg>
      </button>
    ) : null,
  );
}
