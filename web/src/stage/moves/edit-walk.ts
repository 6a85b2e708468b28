import type { Path, Row, Walk } from '@eskovan/core/document';
import { DEFAULT_LENS } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';

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

/** Keeps a change of a walk's path. */
export function keepPath(row: Row<'move'>, label: string, change: (path: Path) => Path): void {
  editBody('move', row, label, (body) => ({ ...body, path: change(body.path) }));
}
