import type { ProjectDocument, Row } from '@eskovan/core/document';
import { toDegrees } from '@eskovan/core/geometry';
import type { CompiledMove } from '@eskovan/core/move';
import { toast } from 'sonner';
import { keepSeveral, viewOf } from '../shared/keep-view.ts';

/** Keeps evenly spaced views of an orbit: of one that closes none twice. */
export function keepAllRound(document: ProjectDocument, row: Row<'move'>, move: CompiledMove, count: number): void {
  if (row.body.kind !== 'orbit') return;
  const { path } = move;
  const gaps = move.loops && !row.body.swings ? count : Math.max(1, count - 1);
  const { sweep } = row.body;
  const views = Array.from({ length: count }, (_, i) => {
    const time = path ? path.timeAt((path.length * i) / gaps) : 0;
    const angle = toDegrees((Math.abs(sweep) * i) / gaps);
    return {
      name: `${row.name} ${angle.toFixed(0)}°`.slice(0, 120),
      body: viewOf(move.sampleAt(time), row.body.light),
    };
  });
  keepSeveral(document, `Views all round ${row.name}`, views);
  toast(`${count} views are kept. The Views stage renders them as one batch.`);
}
