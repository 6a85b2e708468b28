import type { Path, Row, Walk } from '@eskovan/core/document';
import { DEFAULT_LENS } from '@eskovan/core/document';
import { pathFault, type PathFault } from '@eskovan/core/path';
import { toast } from 'sonner';
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

/** Keeps a change of a walk's path; one that would make more of it than a move can hold is not made, and said. */
export function keepPath(row: Row<'move'>, label: string, change: (path: Path) => Path): void {
  editBody('move', row, label, (body) => {
    const path = change(body.path);
    const fault = pathFault(path);
    if (!fault || pathFault(body.path)) return { ...body, path };
    toast(wordsOf(fault), { id: 'path-limit' });
    return body;
  });
}

function wordsOf({ rule, worst, limit }: PathFault): string {
  return rule === 'nodes'
    ? `A path has ${limit.toLocaleString('en')} nodes at most. Draw the rest as another move.`
    : `A path is ${limit / 1000} km long at most; this would be ${(worst / 1000).toFixed(1)} km. Draw the rest as another move.`;
}
