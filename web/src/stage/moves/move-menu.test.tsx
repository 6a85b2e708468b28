import { walkOf, type Row } from '@eskovan/core/document';
import { moveNode } from '@eskovan/core/path';
import { afterEach, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { Toaster } from 'sonner';
import {
  exampleDocument,
  exampleRow,
  exampleWalk,
  leaveProject,
  renderInProject,
  shownDocument,
} from '../../testing/studio.tsx';
import { editRow } from '../../data/edit-row.ts';
import { undo } from '../../data/undo.ts';
import { keepPath } from './edit-move.ts';
import { copyVaried, lockMove, moveMenu } from './move-menu.tsx';

afterEach(leaveProject);

const WALK = exampleRow(
  20,
  'Arrival',
  exampleWalk([
    [0, 0],
    [4, 0],
  ]),
);
const shown = (): Row<'move'>[] =>
  shownDocument()
    .move.filter(({ deleted }) => deleted === null)
    .sort((a, b) => a.order - b.order);

test('a locked move stays as it is and says so; its name is free; unlocked it changes again', async () => {
  renderInProject(<Toaster />, exampleDocument({ move: [WALK] }));
  const nodes = () => walkOf(shown()[0]!.body).path.nodes;
  const shift = (x: number) => keepPath(WALK, 'Move a node', (path) => moveNode(path, nodes()[1]!.id, x, 0));
  lockMove(shown()[0]!);
  shift(7);
  expect(nodes()[1]!.x).toBe(4);
  await waitFor(() => expect(screen.getByText('Arrival is locked. Unlock it to change it.')).toBeTruthy());
  editRow('move', WALK, 'Rename', { name: 'The arrival' });
  expect(shown()[0]!.name).toBe('The arrival');
  lockMove(shown()[0]!);
  shift(7);
  expect(nodes()[1]!.x).toBe(7);
});

test('a copy differs in the one thing, comes next, is not locked, and is one step of undo', () => {
  const other = exampleRow(
    21,
    'After it',
    exampleWalk([
      [0, 3],
      [2, 3],
    ]),
  );
  renderInProject(<Toaster />, exampleDocument({ move: [WALK, { ...other, order: WALK.order + 1 }] }));
  lockMove(shown()[0]!);
  copyVaried(shown()[0]!, 'lower eye');
  expect(shown().map(({ name }) => name)).toEqual(['Arrival', 'Arrival, lower eye', 'After it']);
  const [first, copy] = shown().map(({ body }) => walkOf(body)) as [
    ReturnType<typeof walkOf>,
    ReturnType<typeof walkOf>,
  ];
  expect(copy.locked).toBeUndefined();
  expect(copy).toEqual({ ...first, locked: undefined, eyeHeight: 1.2 });
  undo(WALK.projectId);
  expect(shown()).toHaveLength(2);
});

test('only what makes sense is offered', () => {
  const labels = (row: Row<'move'>) => moveMenu(row).map(({ label }) => label);
  expect(labels(WALK)).toEqual(expect.arrayContaining(['Lock', 'Copy, the other way', 'Copy, slower']));
  expect(labels({ ...WALK, body: exampleWalk([]) })).not.toContain('Copy, the other way');
});
