import type { Row } from '@eskovan/core/document';
import { CircleAlert, DoorOpen, Film, Lightbulb, Pause, Play, RotateCw, Route, Sparkles } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { togglePlaying, usePlayback } from '../../desk/playing.ts';
import { selection, useLead } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { editRow } from '../../data/edit-row.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { bringIntoSight, Button, Card, cx, NameBox } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { useModels } from '../../site/use-site.ts';
import { ActionSettings } from './action-settings.tsx';
import { addMovement, faultOf, playLength, unusedMovements } from './edit-actions.ts';

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

const ICONS = { recorded: Film, spin: RotateCw, hinge: DoorOpen, along: Route, appear: Sparkles, dim: Lightbulb };

function Action({ row, open }: { row: Row<'action'>; open: boolean }) {
  const models = useModels();
  const all = liveRows(useProject().action).map((one) => one.body);
  const { body } = row;
  const parts = useParts(body.kind !== 'recorded');
  const fault = faultOf(body, models, parts, all);
  const rename = (name: string) => editRow('action', row, `Rename ${row.name}`, { name });
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    // What has just been made may lie below the fold.
    if (open) bringIntoSight(line.current);
  }, [open]);
  const Icon = ICONS[body.kind];
  return (
    <li ref={line} className={cx('rounded-lg px-1.5', open && 'bg-desk pb-2')}>
      <div className="flex min-h-8 items-center gap-2">
        <Icon size={14} className="shrink-0 text-ink-soft" aria-hidden />
        <NameBox label="Action" name={row.name} onName={rename} most={120} strong />
        {body.off && <span className="shrink-0 text-sm text-ink-faint">off</span>}
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
      {open && <ActionSettings row={row} />}
    </li>
  );
}
