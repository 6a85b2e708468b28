import type { ProjectDocument, ShotBody } from '@eskovan/core/document';
import { evenPaced } from '@eskovan/core/move';
import type { Match } from '@eskovan/core/reel';
import { editBody } from '../../data/edit-row.ts';
import { beginEdit, type Gesture } from '../../data/undo.ts';
import { setBodies, swapBefore } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk } from './reel-desk.ts';

/** Does what a proposal says, as one step of undo. @param index of the shot that the join leads to */
function applyMatch({ move }: ProjectDocument, open: OpenReel, index: number, match: Match): void {
  if (match.kind === 'swap') {
    swapBefore(open, index);
    return;
  }
  if (match.kind === 'even pace of the first' || match.kind === 'even pace of the second') {
    const { use } = open.shots[match.kind === 'even pace of the first' ? index - 1 : index]!.body;
    const row = use.kind === 'move' ? move.find(({ id }) => id === use.move) : undefined;
    if (row) editBody('move', row, `Pace of ${row.name}`, (body) => evenPaced(body) ?? body);
    return;
  }
  setBodies(
    open,
    `Match the join before ${open.shots[index]!.name}`,
    new Map(match.changes.map(({ id, body }): [string, ShotBody] => [id, body])),
  );
}

let tried: Gesture | null = null;

/** Shows what a proposal would make of the reel, until it is taken or let go. @param open as it is without it */
export function tryMatch(...[document, open, index, match]: Parameters<typeof applyMatch>): void {
  if (reelDesk.get().trying) return;
  reelDesk.set({ trying: true });
  tried = beginEdit();
  applyMatch(document, open, index, match);
}

/** Shows the reel as it is again. */
export function untry(): void {
  if (!reelDesk.get().trying) return;
  tried?.cancel();
  tried = null;
  reelDesk.set({ trying: false });
}

export function takeMatch(...[document, open, index, match]: Parameters<typeof applyMatch>): void {
  if (tried?.open) tried.commit();
  else applyMatch(document, open, index, match);
  tried = null;
  reelDesk.set({ trying: false });
}
