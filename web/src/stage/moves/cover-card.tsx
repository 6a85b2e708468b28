import type { RoomCover } from '@eskovan/core/check';
import type { CompiledMove } from '@eskovan/core/move';
import { workbench } from '../../desk/workbench.ts';
import { Card, Length, Line, Value } from '../../kit/index.ts';

interface CoverCardProps {
  move: CompiledMove;
  /** null while it is not known. */
  cover: readonly RoomCover[] | null;
}

const WIDTH = 112;

/** How long a move is, and which rooms it shows for how long. */
export function CoverCard({ move, cover }: CoverCardProps) {
  const { duration, path } = move;
  const shown = [...(cover ?? [])].filter(({ seen }) => seen > 0).sort((a, b) => a.spans[0]![0] - b.spans[0]![0]);
  const missed = (cover ?? []).filter(({ seen }) => seen === 0);
  const storeys = new Set((cover ?? []).filter(({ inside }) => inside > 0).map(({ storey }) => storey));
  return (
    <Card title="What it shows" note={cover ? `${shown.length} of ${cover.length} rooms` : 'looking'}>
      <div className="grid grid-cols-2 gap-x-4">
        {path && (
          <Line label="Length">
            <Length metres={path.length} digits={1} />
          </Line>
        )}
        <Line label="Time">
          <Value unit="s">{duration.toFixed(1)}</Value>
        </Line>
        {path && (
          <Line label="Mean speed">
            <Length metres={path.length / duration} per="s" />
          </Line>
        )}
        {storeys.size > 0 && (
          <Line label="Storeys">
            <Value>{storeys.size}</Value>
          </Line>
        )}
      </div>
      <ul className="mt-1 grid gap-0.5">
        {shown.map(({ room, storey, seen, spans }) => (
          <li key={`${storey} ${room}`} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 truncate" title={`${room}, ${storey}`}>
              {room}
            </span>
            <svg width={WIDTH} height="12" role="img" aria-label={`Seen from ${spans[0]![0].toFixed(0)} s on`}>
              <rect width={WIDTH} height="12" rx="3" fill="var(--rule)" fillOpacity="0.55" />
              {spans.map(([from, to]) => (
                <rect
                  key={from}
                  x={(from / duration) * WIDTH}
                  width={Math.max(1.5, ((to - from) / duration) * WIDTH)}
                  height="12"
                  fill="var(--lagoon)"
                />
              ))}
            </svg>
            <button
              type="button"
              className="min-h-6 w-13 text-right font-mono text-sm tabular-nums underline decoration-dotted"
              title="Show when it is seen first"
              onClick={() => workbench.set({ time: spans[0]![0], playing: false, scout: null })}
            >
              {seen.toFixed(1)} s
            </button>
          </li>
        ))}
      </ul>
      {missed.length > 0 && (
        <p className="mt-1 text-sm text-ink-soft">Not seen: {missed.map(({ room }) => room).join(', ')}.</p>
      )}
    </Card>
  );
}
