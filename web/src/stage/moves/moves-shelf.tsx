import type { ProjectDocument, Row } from '@eskovan/core/document';
import { Plus } from 'lucide-react';
import { memo, useDeferredValue } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { makeRow } from '../../data/edit-row.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, WalkIcon } from '../../kit/index.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { emptyWalk } from './edit-walk.ts';
import { useCompiledWalk } from '../shared/use-compiled-walk.ts';

/** Makes a walk without a path and takes up the pencil. */
export function addWalk({ project, move }: ProjectDocument): void {
  const moves = liveRows(move);
  const name = `Walk ${moves.length + 1}`;
  const body = emptyWalk(project.body.eyeHeight);
  workbench.selectMove(makeRow('move', project.id, 'New walk', { name, order: orderAfter(moves), body }));
  workbench.set({ tool: 'draw' });
}

/** The moves of the project. */
export const MovesShelf = memo(function MovesShelf({ selectedId }: { selectedId: string | null }) {
  const document = useProject();
  // May follow a dragging hand a moment later.
  const moves = useDeferredValue(document.move);
  return (
    <RowShelf
      kind="move"
      title="Moves"
      rows={liveRows(moves)}
      selectedId={selectedId}
      onSelect={workbench.selectMove}
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
