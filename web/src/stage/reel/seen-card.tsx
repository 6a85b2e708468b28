import { ownName, type PromisedObject, type ReelBody } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { BarChart3, Plus, X } from 'lucide-react';
import { memo, lazy, Suspense, useState } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, cx, Dialog, Line, Menu, Value } from '../../kit/index.ts';
import { FindPart } from '../shared/find-part.tsx';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { missingObjects, missingRooms, seenThings, type Seen } from './seen.ts';
import { lengthText } from './words.ts';

const SeenChart = lazy(async () => ({ default: (await import('./seen-chart.tsx')).SeenChart }));

/** Which rooms and objects the reel shows, for how long, and what was promised and is missing. */
export const SeenCard = memo(function SeenCard({ open }: { open: OpenReel }) {
  const cover = useReelFacts((state) => state.cover);
  const objects = useReelFacts((state) => state.objects);
  const [chart, setChart] = useState(false);
  const [finding, setFinding] = useState(false);
  const { row, plan, rate } = open;
  const promised = row.body.promised ?? [];
  const seen = cover ? seenThings(cover, objects ?? []) : [];
  const rooms = cover?.filter(({ storey }) => storey !== '') ?? [];
  const roomsSeen = seen.filter(({ kind, where }) => kind === 'room' && where !== '');
  const missing = missingRooms(promised, cover);
  const missed = objects ? missingObjects(row.body.promisedObjects ?? [], objects) : [];
  const put = (label: string, change: (body: ReelBody) => Partial<ReelBody>) =>
    editBody('reel', row, label, (body) => ({ ...body, ...change(body) }));
  const isOf = (one: PromisedObject) => (other: PromisedObject) => other.model === one.model && other.name === one.name;
  const promiseObject = (one: PromisedObject) => {
    setFinding(false);
    put(`Promise ${ownName(one.name)}`, ({ promisedObjects = [] }) => ({
      promisedObjects: promisedObjects.some(isOf(one)) ? promisedObjects : [...promisedObjects, one],
    }));
  };
  const noLonger = (one: PromisedObject) =>
    put(`Promise ${ownName(one.name)} no more`, ({ promisedObjects = [] }) => ({
      promisedObjects: promisedObjects.filter((other) => !isOf(one)(other)),
    }));
  const most = Math.max(1, ...seen.map((one) => one.seen));
  const longest = plan.shots.reduce((a, b) => (b.frames > a.frames ? b : a), plan.shots[0] ?? null!);
  const mean = plan.shots.length > 0 ? frameTime(plan.frames, rate) / plan.shots.length : 0;
  return (
    <Card title="Seen in this reel" note={cover ? `${roomsSeen.length} of ${rooms.length} rooms` : 'looking'}>
      <ul className="grid gap-1" aria-label="Rooms and objects seen">
        {seen.map((one) => (
          <Thing
            key={one.key}
            thing={one}
            most={most}
            promised={one.kind === 'object' || promised.includes(one.name)}
          />
        ))}
        {missing.map((name) => (
          <Missing
            key={name}
            name={name}
            text="promised, never seen"
            onNoLonger={() =>
              put(`Promise ${name} no more`, (body) => ({
                promised: (body.promised ?? []).filter((other) => other !== name),
              }))
            }
          />
        ))}
        {missed.map(({ there, ...one }) => (
          <Missing
            key={`${one.model} ${one.name}`}
            name={one.name}
            text={there ? 'promised, never seen' : 'not in the site any more'}
            onNoLonger={() => noLonger(one)}
          />
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
              .map((name) => ({
                label: name,
                onSelect: () => put(`Promise ${name}`, (body) => ({ promised: [...(body.promised ?? []), name] })),
              }))
          }
        />
        <Button small icon={<Plus size={13} />} pressed={finding} onClick={() => setFinding(!finding)}>
          Promise an object
        </Button>
      </div>
      {finding && <FindPart onPart={({ model, name }) => promiseObject({ model, name })} />}
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
          description="How long rooms and promised objects are in the picture, and how long the camera is in each room."
        >
          <Suspense fallback={<p>One moment…</p>}>
            <SeenChart
              seen={seen}
              missing={[...missing, ...missed.map(({ name }) => name)]}
              duration={frameTime(plan.frames, rate)}
            />
          </Suspense>
        </Dialog>
      )}
    </Card>
  );
});

function Missing({ name, text, onNoLonger }: { name: string; text: string; onNoLonger: () => void }) {
  return (
    <li className="flex items-center justify-between gap-2 text-madder">
      <span className="truncate">{name}</span>
      <span className="flex items-center gap-1 font-mono text-sm whitespace-nowrap">
        {text}
        <Button
          small
          tone="quiet"
          icon={<X size={12} />}
          aria-label={`No longer promise ${name}`}
          onClick={onNoLonger}
        />
      </span>
    </li>
  );
}

function Thing({
  thing: { name, where, kind, seen, spans },
  most,
  promised,
}: {
  thing: Seen;
  most: number;
  promised: boolean;
}) {
  return (
    <li className="flex items-center gap-2">
      <span
        className={cx('w-28 min-w-0 truncate', kind === 'object' && 'text-ink-soft')}
        title={kind === 'room' && where ? `${name}, ${where}` : where}
      >
        {name}
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
