import type { Row, Walk } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import type { ChannelItem } from '@eskovan/core/track';
import { Pause, Pin, Snail } from 'lucide-react';
import { workbench } from '../../desk/workbench.ts';
import { Button, NumberField } from '../../kit/index.ts';
import { addToPace, editItem } from './edit-items.ts';
import { editMove } from './edit-move.ts';
import { ItemRow } from './item-row.tsx';

interface PaceItemsProps {
  row: Row<'move'>;
  pace: Walk['pace'];
  move: CompiledMove;
  frames: number;
}

/** Pauses, slow places and pins: put where the walk is just now, and changed in numbers. */
export function PaceItems({ row, pace, move, frames }: PaceItemsProps) {
  const items = move.channels.find(({ id }) => id === 'pace')?.items ?? [];
  const add = (kind: 'pause' | 'mark' | 'pin') => () =>
    addToPace(row, move, kind, Math.min(workbench.get().time, move.duration));
  return (
    <>
      <div className="mt-1.5 flex flex-wrap gap-1.5" role="group" aria-label="Where the walk is just now">
        <Button small icon={<Pause size={13} />} onClick={add('pause')}>
          Pause here
        </Button>
        <Button small icon={<Snail size={13} />} onClick={add('mark')}>
          Slower here
        </Button>
        <Button small icon={<Pin size={13} />} onClick={add('pin')}>
          Pin this time
        </Button>
      </div>
      {items.length > 0 && (
        <ul aria-label="In the pace" className="mt-2 grid gap-1">
          {items.map((item) => (
            <ItemRow
              key={item.id}
              item={item}
              when={`${item.from.toFixed(1)} s`}
              onRemove={() => editItem(row, move, item, { by: 'remove' })}
            >
              <ItemNumber row={row} pace={pace} item={item} frames={frames} />
            </ItemRow>
          ))}
        </ul>
      )}
    </>
  );
}

/** The number of an item: how long, how fast, or when. */
function ItemNumber({ row, pace, item, frames }: Omit<PaceItemsProps, 'move'> & { item: ChannelItem }) {
  const change = (to: (pace: Walk['pace']) => Walk['pace']) =>
    editMove(row, 'walk', 'Pace', (now) => ({ ...now, pace: to(now.pace) }));
  const where = `${item.about} at ${item.from.toFixed(1)} s`;
  if (item.kind === 'mark')
    return (
      <NumberField
        label={where}
        bare
        unit="m/s"
        measure="speed"
        value={item.value ?? 0}
        step={0.05}
        min={0.05}
        max={50}
        onChange={(speed) =>
          change((now) => ({
            ...now,
            marks: (now.marks ?? []).map((mark) => (mark.id === item.id ? { ...mark, speed } : mark)),
          }))
        }
      />
    );
  const time = { unit: 's', measure: 'time' as const, frames, step: 0.5, bare: true, label: where };
  if (item.kind === 'pause')
    return (
      <NumberField
        {...time}
        value={pace.pauses?.find(({ id }) => id === item.id)?.seconds ?? 0}
        min={0.1}
        max={600}
        onChange={(seconds) =>
          change((now) => ({
            ...now,
            pauses: (now.pauses ?? []).map((pause) => (pause.id === item.id ? { ...pause, seconds } : pause)),
          }))
        }
      />
    );
  return (
    <NumberField
      {...time}
      value={pace.pins?.find(({ id }) => id === item.id)?.time ?? 0}
      min={0.04}
      max={3600}
      onChange={(at) =>
        change((now) => ({
          ...now,
          pins: (now.pins ?? []).map((pin) => (pin.id === item.id ? { ...pin, time: at } : pin)),
        }))
      }
    />
  );
}
