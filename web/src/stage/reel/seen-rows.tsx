import { LABELS, type StripScale } from '../../strips/scales.ts';
import type { Seen } from './seen.ts';

/** Colours of what is seen, one after the other: it is named as well. */
const COLOURS = ['var(--slate)', 'var(--moss)', 'var(--ochre)', 'var(--plum)', 'var(--indigo)', 'var(--rust)'];

interface SeenRowsProps {
  seen: readonly Seen[];
  scale: StripScale;
  top: number;
  rowHeight: number;
  /** So many rows have room. */
  rows: number;
}

/** Which rooms, and which of the promised objects, are seen when, under the same axis as the shots. */
export function SeenRows({ seen, scale, top, rowHeight, rows }: SeenRowsProps) {
  const objects = seen.filter(({ kind }) => kind === 'object');
  const rooms = seen.filter(({ kind }) => kind === 'room');
  const shown = [...rooms.slice(0, Math.max(0, rows - objects.length)), ...objects].slice(0, rows);
  const [from, to] = scale.ends;
  return (
    <g fontSize="11" fill="var(--ink-soft)">
      {shown.map(({ key, name, where, kind, spans }, i) => (
        <g key={key}>
          <text x={LABELS - 8} y={top + i * rowHeight + rowHeight * 0.78} textAnchor="end">
            <title>{where}</title>
            {name.length > 14 ? `${name.slice(0, 13)}…` : name}
          </text>
          {spans.map(([a, b], k) => {
            const [left, right] = [Math.max(a, from), Math.min(b, to)];
            if (right <= left) return null;
            return (
              <rect
                key={k}
                x={scale.at(left)}
                width={Math.max(1, scale.at(right) - scale.at(left))}
                y={top + i * rowHeight + (kind === 'room' ? 2 : 4)}
                height={rowHeight - (kind === 'room' ? 5 : 9)}
                rx={2.5}
                fill={COLOURS[i % COLOURS.length]}
                fillOpacity="0.62"
              />
            );
          })}
        </g>
      ))}
    </g>
  );
}
