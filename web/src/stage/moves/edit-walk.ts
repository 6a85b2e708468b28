import type { Path, Row, Walk } from '@eskovan/core/document';
import { DEFAULT_LENS } from '@eskovan/core/document';
import { workbench } from '../../app/workbench.ts';
import { currentRow, dispatch } from '../../data/edits.ts';

/** A walk without a path yet. */
export function emptyWalk(eyeHeight: number): Walk {
  return {
    kind: 'walk',
    path: { nodes: [], closed: false },
    eyeHeight,
    pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
    gaze: { kind: 'ahead', distance: 2 },
    lens: DEFAULT_LENS,
  };
}

/**
 * Keeps a change of a walk. The change is applied to the walk as it is now, not as it was when the screen was last
 * drawn: two quick presses are two edits.
 */
export function keepWalk(row: Row<'move'>, label: string, change: (body: Walk) => Walk): void {
  workbench.set({ draft: null });
  const current = (currentRow(row.projectId, 'move', row.id) as Row<'move'> | undefined) ?? row;
  dispatch(row.projectId, label, [{ op: 'change', kind: 'move', id: row.id, values: { body: change(current.body) } }]);
}

/** Keeps a change of a walk's path. */
export function keepPath(row: Row<'move'>, label: string, change: (path: Path) => Path): void {
  keepWalk(row, label, (body) => ({ ...body, path: change(body.path) }));
}

/** Shows a walk as it would be, while the pointer is still down. */
export function draftWalk(row: Row<'move'>, body: Walk): void {
  workbench.set({ draft: { moveId: row.id, body } });
}
