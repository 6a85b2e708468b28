import type { RoomCover } from '@eskovan/core/check';
import { LABELS, type StripScale } from '../../strips/scales.ts';

/** Colours of rooms, one after the other: they are named as well. */
const COLOURS = ['var(--slate)', 'var(--moss)', 'var(--ochre)', 'var(--plum)', 'var(--indigo)', 'var(--rust)'];

interface RoomRowsProps {
  cover: readonly RoomCover[];
  scale: StripScale;
  top: number;
  rowHeight: number;
  /** So many rows have room. */
  rows: number;
}

/** Which rooms are seen when, under the same axis as the shots. */
export function RoomRows({ cover, scale, top, rowHeight, rows }: RoomRowsProps) {
  const shown = seenRooms(cover).slice(0, rows);
  const [from, to] = scale.ends;
  return (
    <g fontSize="11" fill="var(--ink-soft)">
      {shown.map(({ room, storey, spans }, i) => (
        <g key={`${storey} ${room}`}>
          <text x={LABELS - 8} y={top + i * rowHeight + rowHeight * 0.78} textAnchor="end">
            {room.length > 14 ? `${room.slice(0, 13)}…` : room}
          </text>
          {spans.map(([a, b], k) => {
            const [left, right] = [Math.max(a, from), Math.min(b, to)];
            if (right <= left) return null;
            return (
              <rect
                key={k}
                x={scale.x(left)}
                width={Math.max(1, scale.x(right) - scale.x(left))}
                y={top + i * rowHeight + 2}
                height={rowHeight - 5}
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

/** Rooms in the order in which they are seen first. */
export const seenRooms = (cover: readonly RoomCover[]): RoomCover[] =>
  cover.filter(({ seen }) => seen > 0.05).sort((a, b) => (a.spans[0]?.[0] ?? 0) - (b.spans[0]?.[0] ?? 0));
