import { walkOf } from '@eskovan/core/document';
import { afterEach, expect, test } from '@jest/globals';
import { LONGEST_PATH, moveNode } from '@eskovan/core/path';
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
import { keepPath } from './edit-move.ts';

afterEach(leaveProject);

test('a change that makes a path longer than a move can be is not made, and somebody says so', async () => {
  const row = exampleRow(
    20,
    'Arrival',
    exampleWalk([
      [0, 0],
      [4, 0],
    ]),
  );
  renderInProject(<Toaster />, exampleDocument({ move: [row] }));
  const place = () => walkOf(shownDocument().move[0]!.body).path.nodes[1]!.x;
  const last = walkOf(shownDocument().move[0]!.body).path.nodes[1]!.id;
  keepPath(row, 'Move a node', (path) => moveNode(path, last, LONGEST_PATH - 1, 0));
  expect(place()).toBe(LONGEST_PATH - 1);
  keepPath(row, 'Move a node', (path) => moveNode(path, last, 2 * LONGEST_PATH, 0));
  expect(place()).toBe(LONGEST_PATH - 1);
  await waitFor(() => expect(screen.getByText(/A path is 5 km long at most; this would be 10\.0 km/)).toBeTruthy());
});
