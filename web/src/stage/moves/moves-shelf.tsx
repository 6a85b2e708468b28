import type { ProjectDocument, Row } from '@eskovan/core/document';
import { Plus } from 'lucide-react';
import { memo } from 'react';
import { workbench } from '../../app/workbench.ts';
import { dispatch } from '../../data/edits.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows } from '../../data/row-change.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, WalkIcon } from '../../kit/index.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { emptyWalk } from './edit-walk.ts';
import { useCompiledWalk } from './use-compiled-walk.ts';

/** Makes a walk without a path and takes up the pencil. */
export function addWalk({ project, move }: ProjectDocument): void {
  const id = crypto.randomUUID();
  const moves = liveRows(move);
  const name = `Walk ${moves.length + 1}`;
  const body = emptyWalk(project.body.eyeHeight);
  dispatch(project.id, 'New walk', [{ op: 'create', kind: 'move', id, name, order: orderAfter(moves), body }]);
  workbench.selectMove(id);
  workbench.set({ tool: 'draw' });
}

/** The moves of the project. Follows what is kept, not what is being dragged. */
export const MovesShelf = memo(function MovesShelf({ selectedId }: { selectedId: string | null }) {
  const document = useProject();
  return (
    <RowShelf
      kind="move"
      title="Moves"
      rows={liveRows(document.move)}
      selectedId={selectedId}
      onSelect={(id) => workbench.selectMove(id)}
      mark={() => <WalkIcon />}
      note={(move) => <MoveNote row={move} />}
      empty="Nothing moves yet. Draw the first walk on the plan."
      footer={
        <Button icon={<Plus size={14} />} className="w-full" onClick={() => addWalk(document)}>
          New walk
        </Button>
      }
    />
  );
});

function MoveNote({ row }: { row: Row<'move'> }) {
  const walk = useCompiledWalk(row.body);
  return walk ? `${walk.duration.toFixed(1)} s · ${walk.curve.length.toFixed(1)} m` : 'no path yet';
}
