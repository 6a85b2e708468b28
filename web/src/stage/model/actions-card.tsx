import type { ActionBody, Repeat, Row } from '@eskovan/core/document';
import { CircleAlert, Pause, Play, RotateCw, Route, Trash2 } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import { useCommands } from '../../desk/commands.ts';
import { togglePlaying, usePlayback } from '../../desk/playing.ts';
import { selection, useLead } from '../../desk/selection.ts';
import { undoWithWords } from '../../desk/undo-words.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { editBody, editRow, removeRow } from '../../data/edit-row.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, cx, Line, NameBox, NumberField, Segmented } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { useModels } from '../../site/use-site.ts';
import { addMovement, AXES, axisName, axisOf, faultOf, playLength, unusedMovements } from './edit-actions.ts';

const ENDS: readonly { value: Repeat; label: string }[] = [
  { value: 'once', label: 'Stays' },
  { value: 'again', label: 'Again' },
  { value: 'to and fro', label: 'Back' },
];

/** What moves by itself while a move plays, and what could: movements that came with the files. */
export function ActionsCard() {
  const document = useProject();
  const models = useModels();
  const actions = liveRows(document.action);
  const offers = unusedMovements(actions, models);
  const chosen = useLead('action');
  const duration = playLength(actions, models);
  usePlayback(duration, false);
  useCommands([
    {
      id: 'action.play',
      label: 'Play or pause the actions',
      group: 'Time',
      keys: 'Space',
      when: () => actions.length > 0,
      run: () => play(duration),
    },
  ]);
  if (actions.length === 0 && offers.length === 0) return null;
  return (
    <Card title="Actions" note={actions.length > 0 && <PlayActions duration={duration} />}>
      <ul className="grid gap-0.5">
        {actions.map((row) => (
          <Action key={row.id} row={row} open={row.id === chosen} />
        ))}
      </ul>
      {offers.length > 0 && (
        <>
          <p className={cx('text-ink-faint', actions.length > 0 && 'mt-2 border-t border-rule pt-2')}>
            Movements in the files
          </p>
          <ul className="max-h-36 overflow-y-auto">
            {offers.map(({ model, movement }) => (
              <li key={`${model} ${movement.name}`} className="flex min-h-8 items-center gap-2">
                <span className="min-w-0 flex-1 truncate" title={movement.targets.join(', ')}>
                  {movement.name}
                </span>
                <span className="shrink-0 font-mono text-sm text-ink-soft">{movement.duration.toFixed(1)} s</span>
                <Button
                  small
                  aria-label={`Use ${movement.name}`}
                  onClick={() => addMovement(document, model, movement.name)}
                >
                  Use
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </Card>
  );
}

/** Plays or stops, looking on from where one stands. */
function play(duration: number): void {
  const { scout } = workbench.get();
  togglePlaying(duration);
  workbench.set({ scout });
}

function PlayActions({ duration }: { duration: number }) {
  const playing = useWorkbench((state) => state.playing);
  const time = useWorkbench((state) => Math.min(state.time, duration).toFixed(1));
  return (
    <span className="flex items-center gap-2">
      <span className="font-mono">{time} s</span>
      <Button small icon={playing ? <Pause size={13} /> : <Play size={13} />} onClick={() => play(duration)}>
        {playing ? 'Pause' : 'Play'}
      </Button>
    </span>
  );
}

function Action({ row, open }: { row: Row<'action'>; open: boolean }) {
  const models = useModels();
  const { body } = row;
  const parts = useParts(body.kind === 'spin');
  const fault = faultOf(body, models, parts);
  const rename = (name: string) => editRow('action', row, `Rename ${row.name}`, { name });
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    // What has just been made may lie below the fold.
    if (open) line.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  const Icon = body.kind === 'spin' ? RotateCw : Route;
  return (
    <li ref={line} className={cx('rounded-lg px-1.5', open && 'bg-desk pb-2')}>
      <div className="flex min-h-8 items-center gap-2">
        <Icon size={14} className="shrink-0 text-ink-soft" aria-hidden />
        <NameBox label="Action" name={row.name} onName={rename} most={120} strong />
        <Button
          tone="quiet"
          small
          aria-expanded={open}
          aria-label={`${open ? 'Close' : 'Change'} ${row.name}`}
          onClick={() => selection.chooseRow('action', open ? null : row.id)}
        >
          {open ? 'Close' : 'Change'}
        </Button>
      </div>
      {fault && (
        <p className="flex gap-2 pb-1" role="status">
          <CircleAlert size={15} className="mt-0.5 shrink-0 text-madder" aria-hidden />
          <span className="min-w-0 break-words">{fault}</span>
        </p>
      )}
      {open && <Settings row={row} />}
    </li>
  );
}

function Settings({ row }: { row: Row<'action'> }) {
  const up = useModels().find(({ id }) => id === row.body.model)?.body.placement.up ?? 'y';
  const change = <K extends ActionBody['kind']>(kind: K, values: Partial<Extract<ActionBody, { kind: K }>>) =>
    editBody('action', row, `Change of ${row.name}`, (body) =>
      body.kind === kind ? ({ ...body, ...values } as ActionBody) : body,
    );
  const { body } = row;
  const remove = () => {
    removeRow('action', row);
    toast(`“${row.name}” deleted`, { action: { label: 'Undo', onClick: () => undoWithWords(row.projectId) } });
  };
  return (
    <>
      <NumberField
        label="Begins at"
        unit="s"
        measure="time"
        value={body.start}
        step={0.5}
        min={0}
        max={3600}
        onChange={(start) => change(body.kind, { start })}
      />
      {body.kind === 'recorded' && (
        <>
          <NumberField
            label="Speed"
            unit="×"
            value={body.speed}
            step={0.1}
            min={0.05}
            max={20}
            onChange={(speed) => change('recorded', { speed })}
          />
          <Line label="At its end">
            <Segmented
              label="At its end"
              value={body.repeat}
              options={ENDS}
              onChange={(repeat) => change('recorded', { repeat })}
            />
          </Line>
        </>
      )}
      {body.kind === 'spin' && (
        <>
          <NumberField
            label="Turns a minute"
            value={(body.rate * 30) / Math.PI}
            step={0.5}
            min={-900}
            max={900}
            onChange={(turns) => change('spin', { rate: (turns * Math.PI) / 30 })}
          />
          <Line label="Axis">
            <Segmented
              label="Axis"
              value={axisName(body.axis, up) ?? ''}
              options={AXES.map((value) => ({ value, label: value }))}
              onChange={(name) => name && change('spin', { axis: axisOf(name, up) })}
            />
          </Line>
        </>
      )}
      <div className="mt-1 text-right">
        <Button tone="danger" small icon={<Trash2 size={13} />} onClick={remove}>
          Delete
        </Button>
      </div>
    </>
  );
}
