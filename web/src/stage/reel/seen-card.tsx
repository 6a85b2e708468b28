import type { RoomCover } from '@eskovan/core/check';
import { frameTime } from '@eskovan/core/reel';
import { BarChart3, Plus, X } from 'lucide-react';
import { memo, lazy, Suspense, useState } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, Dialog, Line, Menu, Value } from '../../kit/index.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { seenRooms } from './room-rows.tsx';
import { lengthText } from './words.ts';

const SeenChart = lazy(async () => ({ default: (await import('./seen-chart.tsx')).SeenChart }));

/** Which rooms the reel shows, for how long, and what was promised and is missing. */
export const SeenCard = memo(function SeenCard({ open }: { open: OpenReel }) {
  const cover = useReelFacts((state) => state.cover);
  const [chart, setChart] = useState(false);
  const { row, plan, rate } = open;
  const promised = row.body.promised ?? [];
  const seen = cover ? seenRooms(cover) : [];
  const missing = promised.filter((name) => !seen.some(({ room }) => room === name));
  const rooms = cover?.filter(({ storey }) => storey !== '') ?? [];
  const put = (label: string, change: (list: string[]) => string[]) =>
    editBody('reel', row, label, (body) => ({ ...body, promised: change([...(body.promised ?? [])]) }));
  const most = Math.max(1, ...seen.map((one) => one.seen));
  const longest = plan.shots.reduce((a, b) => (b.frames > a.frames ? b : a), plan.shots[0] ?? null!);
  const mean = plan.shots.length > 0 ? frameTime(plan.frames, rate) / plan.shots.length : 0;
  return (
    <Card
      title="Seen in this reel"
      note={cover ? `${seen.filter(({ storey }) => storey !== '').length} of ${rooms.length} rooms` : 'looking'}
    >
      <ul className="grid gap-1" aria-label="Rooms seen">
        {seen.map((one) => (
          <Room key={`${one.storey} ${one.room}`} cover={one} most={most} promised={promised.includes(one.room)} />
        ))}
        {missing.map((name) => (
          <li key={name} className="flex items-center justify-between gap-2 text-madder">
            <span className="truncate">{name}</span>
            <span className="flex items-center gap-1 font-mono text-sm whitespace-nowrap">
              promised, never seen
              <Button
                small
                tone="quiet"
                icon={<X size={12} />}
                aria-label={`No longer promise ${name}`}
                onClick={() => put(`Promise ${name} no more`, (list) => list.filter((other) => other !== name))}
              />
            </span>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button small icon={<BarChart3 size={13} />} disabled={!cover} onClick={() => setChart(true)}>
          Chart and table
        </Button>
        <Menu
          trigger={
            <Button small icon={<Plus size={13} />} disabled={rooms.length === 0}>
              Promise a room
            </Button>
          }
          items={() =>
            [...new Set(rooms.map(({ room }) => room))]
              .filter((name) => !promised.includes(name))
              .map((name) => ({ label: name, onSelect: () => put(`Promise ${name}`, (list) => [...list, name]) }))
          }
        />
      </div>
      {longest && (
        <div className="mt-1 grid grid-cols-2 gap-x-4">
          <Line label="Longest">
            <Value>{lengthText(longest.frames, rate)}</Value>
          </Line>
          <Line label="Mean">
            <Value unit="s">{mean.toFixed(1)}</Value>
          </Line>
        </div>
      )}
      {chart && cover && (
        <Dialog
          open
          wide
          onClose={() => setChart(false)}
          title="What the reel shows"
          description="How long each room is in the picture, and how long the camera is in it."
        >
          <Suspense fallback={<p>One moment…</p>}>
            <SeenChart cover={seen} missing={missing} duration={frameTime(plan.frames, rate)} />
          </Suspense>
        </Dialog>
      )}
    </Card>
  );
});

function Room({
  cover: { room, storey, seen, spans },
  most,
  promised,
}: {
  cover: RoomCover;
  most: number;
  promised: boolean;
}) {
  return (
    <li className="flex items-center gap-2">
      <span className="w-28 min-w-0 truncate" title={storey ? `${room}, ${storey}` : room}>
        {room}
        {promised && <span className="text-ink-faint"> ✓</span>}
      </span>
      <span className="h-2.5 flex-1 rounded bg-rule/50">
        <span className="block h-full rounded bg-slate/70" style={{ width: `${(100 * seen) / most}%` }} />
      </span>
      <button
        type="button"
        className="min-h-6 w-13 text-right font-mono text-sm tabular-nums underline decoration-dotted"
        title="Show when it is seen first"
        onClick={() => workbench.set({ time: spans[0]![0], playing: false })}
      >
        {seen.toFixed(1)} s
      </button>
    </li>
  );
}
