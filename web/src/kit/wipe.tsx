import { useState, type ReactNode } from 'react';

interface WipeProps {
  /** What lies on both sides of the edge, each filling all of the place. */
  left: ReactNode;
  right: ReactNode;
  /** Names the edge: “Edge between the two views”. */
  label: string;
  /** Of what is at the left. */
  name: string;
}

/** Two pictures in one place, with an edge between them that is dragged, or moved by keys. */
export function Wipe({ left, right, label, name }: WipeProps) {
  const [part, setPart] = useState(50);
  return (
    <div className="relative min-h-0 flex-1">
      {right}
      <div className="absolute inset-0" style={{ clipPath: `inset(0 ${100 - part}% 0 0)` }}>
        {left}
      </div>
      <span
        aria-hidden
        className="pointer-events-none absolute inset-y-0 w-px bg-white/80"
        style={{ left: `${part}%` }}
      />
      <input
        type="range"
        autoFocus
        aria-label={label}
        aria-valuetext={`${part} % of ${name}`}
        min={0}
        max={100}
        value={part}
        onChange={(event) => setPart(Number(event.target.value))}
        className="absolute inset-x-0 bottom-1 accent-ochre"
      />
    </div>
  );
}
