import type { Key, Lens, MoveBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { insertKey } from '@eskovan/core/track';
import { Diamond, Trash2 } from 'lucide-react';
import { editBody } from '../../data/edit-row.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import { EyeLensCard } from '../shared/eye-lens-card.tsx';
import { editTrack } from './edit-move.ts';

interface MoveLensCardProps {
  row: Row<'move'>;
  body: MoveBody;
  move: CompiledMove | null;
  aspect: number;
  eyeHeight?: number;
  onEyeHeight?: (height: number) => void;
}

/** The lens of a move: one for all of it, or keys that it changes between. With keys a number is meant for this instant. */
export function MoveLensCard({ row, body, move, aspect, ...eye }: MoveLensCardProps) {
  const keyed = (body.tracks?.focalLength?.length ?? 0) > 0;
  return keyed ? (
    <KeyedLens row={row} body={body} move={move} aspect={aspect} {...eye} />
  ) : (
    <EyeLensCard
      {...eye}
      lens={body.lens}
      aspect={aspect}
      onLens={(change) => editBody('move', row, 'Lens', (now) => ({ ...now, lens: change(now.lens) }))}
    >
      <div className="mt-1.5">
        <Button
          small
          icon={<Diamond size={12} />}
          disabled={!move}
          onClick={() => keyLens(row, workbench.get().time, (now) => now.lens.focalLengthMm)}
        >
          Change it over time
        </Button>
      </div>
    </EyeLensCard>
  );
}

function KeyedLens({ row, body, move, aspect, ...eye }: MoveLensCardProps) {
  const time = Math.min(
    useWorkbench((state) => state.time),
    move?.duration ?? Infinity,
  );
  const view = move?.sampleAt(time).view;
  const lens: Lens =
    view?.kind === 'lens' ? { ...body.lens, focalLengthMm: Number(view.focalLengthMm.toFixed(2)) } : body.lens;
  const keys = body.tracks?.focalLength ?? [];
  return (
    <EyeLensCard
      {...eye}
      lens={lens}
      aspect={aspect}
      onLens={(change) => {
        const { focalLengthMm } = change(lens);
        if (focalLengthMm !== lens.focalLengthMm) keyLens(row, time, () => focalLengthMm);
        else
          editBody('move', row, 'Lens', (now) => ({
            ...now,
            lens: { ...change(now.lens), focalLengthMm: now.lens.focalLengthMm },
          }));
      }}
    >
      <p className="mt-1 text-sm text-ink-soft">
        {keys.length === 1 ? 'One key' : `${keys.length} keys`} in the strip below; a focal length here is for{' '}
        {time.toFixed(2)} s.
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button small icon={<Diamond size={12} />} onClick={() => keyLens(row, time, () => lens.focalLengthMm)}>
          Key here
        </Button>
        <Button
          small
          icon={<Trash2 size={13} />}
          onClick={() => editTrack(row, 'Take the lens keys away', 'focalLength', () => [])}
        >
          No keys
        </Button>
      </div>
    </EyeLensCard>
  );
}

/** @param value of the move as it is at this instant, which the card may not show yet */
function keyLens(row: Row<'move'>, time: number, value: (now: MoveBody) => number): void {
  const id = crypto.randomUUID();
  editTrack(row, 'Lens key', 'focalLength', (keys, now) => {
    const key: Key = { id, anchor: { by: 'time', time }, value: value(now), ease: 'smooth' };
    return insertKey(keys, key);
  });
}
