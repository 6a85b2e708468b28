import { walkOf, type Row } from '@eskovan/core/document';
import { joinWalks, splitWalk, type CompiledMove } from '@eskovan/core/move';
import { pathFault } from '@eskovan/core/path';
import { toast } from 'sonner';
import { making, removing } from '../../data/changes.ts';
import { sayLocked } from '../../data/edit-row.ts';
import { bodyChanges } from '../../data/edits.ts';
import { orderBetween } from '../../data/order.ts';
import { dispatch } from '../../data/undo.ts';
import { selection } from '../../desk/selection.ts';

/**
 * Two walks of one, cut at a node; the second comes next in the list. One step of undo.
 * @param move the walk as it is, compiled
 */
export function splitAt(row: Row<'move'>, move: CompiledMove, node: string, moves: readonly Row<'move'>[]): void {
  if (isLocked(row)) return;
  const parts = splitWalk(walkOf(row.body), move, node);
  if (!parts) return;
  const at = moves.findIndex(({ id }) => id === row.id);
  const second = { id: crypto.randomUUID(), name: `${row.name}, on`.slice(0, 120), body: parts[1] };
  dispatch(row.projectId, 'Split the walk', [
    ...bodyChanges('move', row, () => parts[0]),
    making('move', { ...second, order: orderBetween(moves, -1, at + 1) }),
  ]);
  selection.chooseItem('node', row.id, null);
}

/** One walk of two. One step of undo. @param move the first as it is, compiled */
export function joinWith(row: Row<'move'>, move: CompiledMove, next: Row<'move'>): void {
  if (isLocked(row) || isLocked(next)) return;
  const joined = joinWalks(walkOf(row.body), move, walkOf(next.body), () => crypto.randomUUID());
  if (pathFault(joined.path)) {
    toast('Together they would be more than one walk can hold.', { id: 'path-limit' });
    return;
  }
  dispatch(row.projectId, 'Join the walks', [...bodyChanges('move', row, () => joined), removing('move', next.id)]);
}

/** Says so of a walk that is not to be changed. */
function isLocked(row: Row<'move'>): boolean {
  if (row.body.locked) sayLocked(row);
  return row.body.locked === true;
}
