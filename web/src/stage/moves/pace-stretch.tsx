import { sameValues, type Row } from '@eskovan/core/document';
import type { CompiledMove, MovePath } from '@eskovan/core/move';
import { retimed, type StretchChange } from '@eskovan/core/pace';
import { FlipHorizontal2 } from 'lucide-react';
import { toast } from 'sonner';
import { currentRow } from '../../data/edits.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { editShared } from './edit-move.ts';

interface PaceStretchProps {
  row: Row<'move'>;
  move: CompiledMove & { path: MovePath };
}

/** The stretch of time that is played round and round, made longer, moved, or turned round. */
export function PaceStretch({ row, move }: PaceStretchProps) {
  const round = useWorkbench((state) => state.round);
  if (!round)
    return (
      <p className="mt-2 text-sm text-ink-faint">
        With [ and ] a stretch of the time is chosen: to take longer, to come later, or the other way round.
      </p>
    );
  const change = (label: string, what: StretchChange) => {
    const { path, duration } = move;
    const now = currentRow(row.projectId, 'move', row.id)?.body;
    // What is worked out here begins from how the move goes: that must be how it goes now.
    if (!now || !('pace' in now) || !('pace' in row.body) || !sameValues(now.pace, row.body.pace)) {
      toast('The strips have not come to the last change yet. Try once more.');
      return;
    }
    const gone = (time: number) => path.stationAt(time) / path.length;
    const made = retimed(now.pace, gone, duration, round, what);
    if (!made) {
      toast('That leaves too little time for what is before it, in it or after it.');
      return;
    }
    editShared(row, 'pace', label, (body) => ({ ...body, pace: made.pace }));
    workbench.set({ round: made.stretch });
  };
  const { from, to } = round;
  return (
    <div role="group" aria-label="Chosen stretch" className="mt-2 rounded-lg border border-rule p-2">
      <p className="font-medium">
        Stretch from {from.toFixed(2)} to {to.toFixed(2)} s
      </p>
      <TimeField
        label="Lasts"
        value={to - from}
        step={0.5}
        min={0.1}
        max={3600}
        onChange={(seconds) => change('Stretch a part of the time', { by: 'seconds', seconds })}
      />
      <TimeField
        label="Begins at"
        value={from}
        step={0.5}
        min={0}
        max={3600}
        onChange={(time) => change('Move a part of the time', { by: 'shift', seconds: time - from })}
      />
      <Button
        small
        className="mt-1"
        icon={<FlipHorizontal2 size={13} />}
        title="The speeds of this stretch in the opposite order"
        onClick={() => change('Turn a part of the time round', { by: 'turn' })}
      >
        Speeds the other way round
      </Button>
    </div>
  );
}
