import type { DriftWay, Row, ShotBody } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { ArrowLeftRight, Copy, ExternalLink, Scissors, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { editRow } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, cx, Line, NameBox, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { LightCard } from '../shared/light-card.tsx';
import { CaptionFields } from './caption-fields.tsx';
import {
  duplicateShots,
  makeIndependent,
  removeShots,
  setFrames,
  setItsPace,
  setShot,
  splitAt,
  slipShot,
  trimShot,
  turnRound,
} from './edit-reel.ts';
import { FramesField } from './frames-field.tsx';
import { lightOfShot, sourceName, type OpenReel } from './open-reel.ts';
import { TitleFields } from './title-fields.tsx';

interface ShotCardProps {
  open: OpenReel;
  row: Row<'shot'>;
  onOpen: (row: Row<'shot'>) => void;
}

const DRIFTS: readonly { value: DriftWay | 'still'; label: string }[] = [
  { value: 'still', label: 'Still' },
  { value: 'in', label: 'Push in' },
  { value: 'out', label: 'Pull out' },
  { value: 'left', label: 'To the left' },
  { value: 'right', label: 'To the right' },
  { value: 'up', label: 'Up' },
  { value: 'down', label: 'Down' },
];
/** A slight push, metres. */
const SLIGHT = 0.3;

/** What the chosen shot shows, for how long, and how. */
export const ShotCard = memo(function ShotCard({ open, row, onOpen }: ShotCardProps) {
  const document = useProject();
  const [by, setBy] = useState<'trim' | 'pace'>('trim');
  const { rate, plan, shots } = open;
  const planned = plan.shots[shots.indexOf(row)];
  if (!planned) return null;
  const { use } = row.body;
  const source = sourceName(document, row.body);
  const second = Math.round(rate.num / rate.den);
  const atPlayhead = () => Math.round((workbench.get().time * rate.num) / rate.den) - planned.start;
  return (
    <>
      <Card title={`Shot ${planned.index + 1}`} note={WORDS[use.kind]}>
        <NameBox
          label="Shot"
          name={row.name}
          strong
          most={120}
          onName={(name) => editRow('shot', row, `Rename ${row.name}`, { name })}
        />
        {source && (use.kind === 'move' || use.kind === 'view') && (
          <div className="mb-1 flex items-center gap-1.5">
            <span className="min-w-0 flex-1 truncate text-ink-soft" title={source}>
              shows {source}
            </span>
            <Button small tone="quiet" icon={<ExternalLink size={13} />} onClick={() => onOpen(row)}>
              Open the {use.kind}
            </Button>
          </div>
        )}
        {planned.lost && (
          <p role="status" className="mb-1 text-madder">
            {planned.lost === 'gone'
              ? `The ${use.kind} that it showed is not in the project any more. Undo its removal, or delete this shot.`
              : `Its move has become shorter than this shot shows of it: the rest is left out.`}
          </p>
        )}
        <FramesField
          label="Length"
          frames={planned.frames}
          rate={rate}
          onFrames={(frames) => setFrames(open, row, frames, by)}
        />
        {use.kind === 'move' && (
          <>
            <Segmented
              label="A new length"
              value={by}
              options={[
                { value: 'trim', label: 'by its ends' },
                { value: 'pace', label: 'by its pace' },
              ]}
              onChange={setBy}
            />
            <div className="mt-1 grid grid-cols-2 gap-x-4">
              <NumberField
                label="From"
                unit="s"
                measure="time"
                frames={second}
                value={planned.from}
                min={0}
                step={1 / second}
                onChange={(value) => trimTo(open, row, 'from', value)}
              />
              <NumberField
                label="To"
                unit="s"
                measure="time"
                frames={second}
                value={planned.to}
                min={0}
                step={1 / second}
                onChange={(value) => trimTo(open, row, 'to', value)}
              />
            </div>
            <Line label="Pace">
              <span className="flex items-center gap-1.5">
                <Value>{(planned.speed * 100).toFixed(0)} %</Value>
                {row.body.seconds !== undefined && (
                  <Button small onClick={() => setItsPace(open, row)}>
                    As the move
                  </Button>
                )}
              </span>
            </Line>
            <div className="mt-1 flex flex-wrap gap-1.5">
              <Button
                small
                icon={<ArrowLeftRight size={13} />}
                pressed={planned.backwards}
                onClick={() => turnRound(open, row)}
              >
                Backwards
              </Button>
              <Button
                small
                onClick={() => slipShot(open, row, -5)}
                title="The same length of the move, five frames earlier"
              >
                Slip back
              </Button>
              <Button
                small
                onClick={() => slipShot(open, row, 5)}
                title="The same length of the move, five frames later"
              >
                Slip on
              </Button>
            </div>
          </>
        )}
        {use.kind === 'view' && (
          <>
            <Line label="Camera">
              <Select
                label="Camera of the shot"
                value={use.drift?.way ?? 'still'}
                options={DRIFTS}
                onChange={(way) => setShot(open, row, 'Camera', (body) => withDrift(body, way))}
              />
            </Line>
            {use.drift && (
              <NumberField
                label="Goes"
                unit="m"
                measure="length"
                value={use.drift.distance}
                step={0.05}
                min={0}
                max={1000}
                onChange={(distance) =>
                  setShot(open, row, 'Camera', (body) => withDrift(body, use.drift!.way, distance))
                }
              />
            )}
          </>
        )}
        {use.kind === 'title' && <TitleFields open={open} row={row} title={use.title} />}
        <label className="mt-1 flex min-h-7 items-center gap-2">
          <input
            type="checkbox"
            checked={row.body.keeps ?? false}
            onChange={(event) => {
              const keeps = event.target.checked;
              setShot(open, row, 'Fitting', ({ keeps: _, ...body }) => (keeps ? { ...body, keeps: true } : body));
            }}
          />
          keeps its length when the reel is fitted
        </label>
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          <Button small icon={<Scissors size={13} />} onClick={() => splitAt(open, row.id, atPlayhead())}>
            Split here
          </Button>
          <Button small icon={<Copy size={13} />} onClick={() => duplicateShots(open, [row.id])}>
            Duplicate
          </Button>
          {(use.kind === 'move' || use.kind === 'view') && (
            <Button
              small
              onClick={() => makeIndependent(document, open, row)}
              title={`A ${use.kind} of its own, that only this shot uses`}
            >
              Make independent
            </Button>
          )}
          <Button small tone="danger" icon={<Trash2 size={13} />} onClick={() => removeShots(open, [row.id])}>
            Delete
          </Button>
        </div>
      </Card>
      <CaptionFields open={open} row={row} />
      {open.aspect < document.project.body.frame.width / document.project.body.frame.height - 1e-6 &&
        planned.lost !== 'gone' && <AsideCard open={open} row={row} />}
      {(use.kind === 'move' || use.kind === 'view') && (
        <div className={cx('grid')}>
          <LightCard
            light={lightOfShot(document, row.body)}
            onLight={(light) => setShot(open, row, 'Light', (body) => ({ ...body, light }))}
          />
        </div>
      )}
      <Card title="Note">
        <textarea
          aria-label="Note of the shot"
          rows={2}
          maxLength={2000}
          defaultValue={row.body.note ?? ''}
          key={row.id}
          className="w-full resize-y rounded-md border border-rule bg-raised px-1.5 py-1"
          onBlur={(event) => {
            const note = event.target.value.trim();
            if (note !== (row.body.note ?? ''))
              setShot(open, row, 'Note', ({ note: _, ...body }) => (note ? { ...body, note } : body));
          }}
        />
      </Card>
    </>
  );
});

const WORDS: Record<ShotBody['use']['kind'], string> = {
  move: 'a move',
  view: 'a view, held',
  title: 'a card',
  picture: 'a picture',
};

function withDrift(body: ShotBody, way: DriftWay | 'still', distance = SLIGHT): ShotBody {
  if (body.use.kind !== 'view') return body;
  const { drift: _, ...use } = body.use;
  return { ...body, use: way === 'still' ? use : { ...use, drift: { way, distance } } };
}

/** The stretch of a move typed in numbers. */
function trimTo(open: OpenReel, row: Row<'shot'>, end: 'from' | 'to', value: number): void {
  const { plan, shots, rate } = open;
  const planned = plan.shots[shots.indexOf(row)]!;
  const source = value - planned[end];
  const frames = Math.round(source / planned.speed / frameTime(1, rate));
  const atStart = (end === 'from') !== planned.backwards;
  // Backwards, the start of the shot is the end of its stretch.
  trimShot(open, row, atStart ? 'start' : 'end', planned.backwards ? -frames : frames);
}

/** Where a narrower picture lies in the one that the move was made for. */
function AsideCard({ open, row }: { open: OpenReel; row: Row<'shot'> }) {
  const { aside } = row.body;
  return (
    <Card title="Cut-out" note={aside === undefined ? 'follows its subject' : 'by hand'}>
      <Segmented
        label="Where the cut-out lies"
        value={aside === undefined ? 'follows' : 'hand'}
        options={[
          { value: 'follows', label: 'Follows' },
          { value: 'hand', label: 'By hand' },
        ]}
        onChange={(value) =>
          setShot(open, row, 'Cut-out', ({ aside: _, ...body }) =>
            value === 'hand' ? { ...body, aside: aside ?? 0 } : body,
          )
        }
      />
      {aside !== undefined && (
        <NumberField
          label="Aside"
          unit="%"
          value={aside * 100}
          digits={0}
          step={5}
          min={-100}
          max={100}
          onChange={(value) => setShot(open, row, 'Cut-out', (body) => ({ ...body, aside: value / 100 }))}
        />
      )}
    </Card>
  );
}
