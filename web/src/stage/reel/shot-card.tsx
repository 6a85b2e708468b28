import { aspectOf, hasStretch, type Row, type ShotBody } from '@eskovan/core/document';
import { Copy, ExternalLink, Scissors, Trash2, Unlink } from 'lucide-react';
import { memo, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { editRow } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NameBox } from '../../kit/index.ts';
import { LightCard } from '../shared/light-card.tsx';
import { CaptionFields } from './caption-fields.tsx';
import { AsideCard } from './aside-card.tsx';
import { ClipSoundField } from './clip-sound-field.tsx';
import { duplicateShots, makeIndependent, removeShots, setFrames, setShot, splitAt } from './edit-reel.ts';
import { FramesField } from './frames-field.tsx';
import { renameGroup, ungroupShots } from './group-shots.ts';
import { lightOfShot, sourceName, type OpenReel } from './open-reel.ts';
import { StretchFields } from './stretch-fields.tsx';
import { TitleFields } from './title-fields.tsx';
import { ViewFields } from './view-fields.tsx';

interface ShotCardProps {
  open: OpenReel;
  row: Row<'shot'>;
  onOpen: (row: Row<'shot'>) => void;
}

/** What the chosen shot shows, for how long, and how. */
export const ShotCard = memo(function ShotCard({ open, row, onOpen }: ShotCardProps) {
  const document = useProject();
  const [by, setBy] = useState<'trim' | 'pace'>('trim');
  const { rate, plan, shots } = open;
  const planned = plan.shots[shots.indexOf(row)];
  if (!planned) return null;
  const { use } = row.body;
  /** It is seen by a camera of the project, which can be opened. */
  const hasCamera = use.kind === 'move' || use.kind === 'view';
  const whole = aspectOf(document.project.body);
  const source = sourceName(document, row.body);
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
        {source && hasCamera && (
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
        {hasStretch(use) && <StretchFields open={open} row={row} use={use} planned={planned} by={by} onBy={setBy} />}
        {use.kind === 'clip' && <ClipSoundField open={open} row={row} use={use} planned={planned} />}
        {use.kind === 'view' && <ViewFields open={open} row={row} use={use} />}
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
        {row.body.group && (
          <Line label="Moved with">
            <span className="flex min-w-0 items-center gap-1">
              <NameBox
                label="Group of the shot"
                name={row.body.group}
                most={60}
                onName={(name) => renameGroup(open, row.body.group!, name)}
              />
              <Button
                small
                tone="quiet"
                icon={<Unlink size={13} />}
                aria-label={`Take ${row.name} out of ${row.body.group}`}
                onClick={() => ungroupShots(open, [row.id])}
              />
            </span>
          </Line>
        )}
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          <Button small icon={<Scissors size={13} />} onClick={() => splitAt(open, row.id, atPlayhead())}>
            Split here
          </Button>
          <Button small icon={<Copy size={13} />} onClick={() => duplicateShots(open, [row.id])}>
            Duplicate
          </Button>
          {hasCamera && (
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
      {Math.abs(open.aspect - whole) > 1e-6 && hasCamera && planned.lost !== 'gone' && (
        <AsideCard open={open} row={row} flatter={open.aspect > whole} />
      )}
      {hasCamera && (
        <LightCard
          light={lightOfShot(document, row.body)}
          onLight={(light) => setShot(open, row, 'Light', (body) => ({ ...body, light }))}
        />
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
  clip: 'a clip',
};
