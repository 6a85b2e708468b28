import { X } from 'lucide-react';
import { useWorkbench, workbench } from '../desk/workbench.ts';
import { LABELS, RULER, type StripScale } from './scales.ts';

/** In the ruler, what is played round and round. */
export function RoundBand({ scale }: { scale: StripScale }) {
  const round = useWorkbench((state) => state.round);
  if (!round) return null;
  const left = Math.max(LABELS, scale.x(round.from));
  const width = Math.min(LABELS + scale.inner, scale.x(round.to)) - left;
  if (width <= 0) return null;
  return (
    <div
      className="pointer-events-none absolute top-0 rounded-b border-x border-b border-lagoon bg-lagoon-wash/70"
      style={{ left, width, height: RULER }}
      data-testid="round"
    >
      <button
        type="button"
        aria-label="Play all of it again"
        title="Played round and round; press to play all of it again"
        className="pointer-events-auto absolute top-0 right-0 flex h-5.5 w-6 items-center justify-center text-ink-soft hover:text-ink"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => workbench.set({ round: null })}
      >
        <X size={13} />
      </button>
    </div>
  );
}
