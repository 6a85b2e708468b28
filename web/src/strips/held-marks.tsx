import { Eye } from 'lucide-react';
import type { StripScale } from './scales.ts';

/** Something that is held at a time and not kept yet. */
export interface HeldMark {
  id: string;
  /** seconds */
  time: number;
}

interface HeldMarksProps {
  marks: readonly HeldMark[];
  scale: StripScale;
  onLook: (id: string) => void;
}

/** In the ruler, where one looked elsewhere: pressed, one looks there again. */
export function HeldMarks({ marks, scale, onLook }: HeldMarksProps) {
  return marks
    .filter(({ time }) => scale.shows(time))
    .map(({ id, time }) => (
      <button
        key={id}
        type="button"
        aria-label={`Unkept look at ${time.toFixed(2)} s`}
        title={`Looked elsewhere at ${time.toFixed(2)} s, not kept: look again`}
        className="absolute top-0 flex h-6 w-6 items-center justify-center"
        style={{ left: scale.x(time) - 12 }}
        onPointerDown={(event) => event.stopPropagation()}
        onDoubleClick={(event) => event.stopPropagation()}
        onClick={() => onLook(id)}
      >
        <span className="flex h-4.5 w-4.5 items-center justify-center rounded-full border border-ochre bg-paper text-ink">
          <Eye size={11} />
        </span>
      </button>
    ));
}
