import { PACE_LIMITS, type Pace, type Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { changePaceItem, type PaceItemChange } from '@eskovan/core/pace';
import type { ChannelItem } from '@eskovan/core/track';
import { Pause, Pin, Snail } from 'lucide-react';
import { workbench } from '../../desk/workbench.ts';
import { Button, NumberField } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { addToPace, changePace, editItem } from './edit-items.ts';
import { ItemRow } from './item-row.tsx';

interface PaceItemsProps {
  row: Row<'move'>;
  pace: Pace;
  move: CompiledMove;
}

/** Pauses, slow places and pins: put where the walk is just now, and changed in numbers. */
export function PaceItems({ row, pace, move }: PaceItemsProps) {
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
              <ItemNumber row={row} pace={pace} item={item} />
            </ItemRow>
          ))}
        </ul>
      )}
    </>
  );
}

/** The number of an item: how long, how fast, or when. */
function ItemNumber({ row, pace, item }: Omit<PaceItemsProps, 'move'> & { item: ChannelItem }) {
  const set = (change: PaceItemChange) => changePace(row, 'Pace', (now) => changePaceItem(now, item.id, change));
  const limits = ([min, max]: readonly [number, number]) => ({ min, max });
  const label = `${item.about} at ${item.from.toFixed(1)} s`;
  if (item.kind === 'mark')
    return (
      <NumberField
        {...limits(PACE_LIMITS.speed)}
        label={label}
        bare
        unit="m/s"
        measure="speed"
        value={item.value ?? 0}
        step={0.05}
        onChange={(speed) => set({ speed })}
      />
    );
  const isPause = item.kind === 'pause';
  const kept = isPause
    ? pace.pauses?.find(({ id }) => id === item.id)?.seconds
    : pace.pins?.find(({ id }) => id === item.id)?.time;
  return (
    <TimeField
      {...limits(isPause ? PACE_LIMITS.pause : PACE_LIMITS.pin)}
      label={label}
      bare
      step={0.5}
      value={kept ?? 0}
      onChange={(value) => set(isPause ? { seconds: value } : { time: value })}
    />
  );
}
