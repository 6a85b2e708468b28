import type { Row, Walk } from '@eskovan/core/document';
import { afterEach, expect, test } from '@jest/globals';
import { act, fireEvent, screen } from '@testing-library/react';
import { useProject } from '../../data/use-project.ts';
import {
  exampleDocument,
  exampleRow,
  exampleWalk,
  leaveProject,
  renderInProject,
  shownDocument,
  uuid,
} from '../../testing/studio.tsx';
import { workbench } from '../../desk/workbench.ts';
import { addToGazeLine, drawGazeLine } from './gaze-line.ts';
import { GazePoints } from './gaze-points.tsx';

afterEach(leaveProject);

const object = (name: string, point: [number, number, number]) => ({
  kind: 'object' as const,
  model: uuid(3),
  name,
  point,
  centre: [0, 0, 0] as [number, number, number],
});
const BODY: Walk = {
  ...exampleWalk([
    [0, 0],
    [4, 0],
  ]),
  gaze: object('table', [2, 0.8, 3]),
  gazeSpans: [
    {
      id: uuid(50),
      from: { by: 'station', station: 1 },
      to: { by: 'station', station: 2 },
      gaze: object('window', [5, 1.5, -1]),
      handOver: 1,
    },
    {
      id: uuid(51),
      from: { by: 'station', station: 3 },
      to: { by: 'station', station: 4 },
      gaze: { kind: 'ahead', distance: 2 },
      handOver: 1,
    },
  ],
};

test('a line for the eye is drawn place by place, for all of the move; its nodes are moved and taken out', async () => {
  const row = exampleRow(20, 'Arrival', BODY);
  const gazeNow = () => ((shownDocument().move[0] as Row<'move'>).body as Walk).gaze;
  const line = () => {
    const gaze = gazeNow();
    return gaze.kind === 'line' ? gaze.path.nodes.map(({ x, y, z }) => [x, y, z]) : null;
  };
  function Shown() {
    const [shown] = useProject().move;
    return (
      <svg>
        <GazePoints row={shown!} body={shown!.body} />
      </svg>
    );
  }
  renderInProject(<Shown />, exampleDocument({ move: [row] }));
  act(() => drawGazeLine(false));
  expect(workbench.get().aiming).toBe('line');
  act(() => {
    addToGazeLine(row, null, [1, 1.6, 2]);
    addToGazeLine(row, null, [3, 1.6, 2]);
    addToGazeLine(row, null, [3, 2, 4]);
  });
  expect(line()).toEqual([
    [1, 1.6, 2],
    [3, 1.6, 2],
    [3, 2, 4],
  ]);
  fireEvent.keyDown(await screen.findByRole('button', { name: 'Line of the eye, throughout, node 2' }), {
    key: 'ArrowRight',
  });
  expect(line()![1]).toEqual([3.1, 1.6, 2]);
  fireEvent.keyDown(screen.getByRole('button', { name: 'Line of the eye, throughout, node 3' }), { key: 'Delete' });
  expect(line()).toHaveLength(2);
  // Drawn again, it begins anew.
  act(() => {
    drawGazeLine(false);
    addToGazeLine(row, null, [9, 1, 9]);
  });
  expect(line()).toEqual([[9, 1, 9]]);
});

test('what a move looks at stands on the plan and is moved there, as high as it was; what looks ahead has no place', () => {
  const row = exampleRow(20, 'Arrival', BODY);
  renderInProject(
    <svg>
      <GazePoints row={row} body={BODY} />
    </svg>,
    exampleDocument({ move: [row] }),
  );
  expect(screen.getAllByRole('button').map((handle) => handle.getAttribute('aria-label'))).toEqual([
    'Looks at table, throughout',
    'Looks at window, gaze 1',
  ]);
  fireEvent.keyDown(screen.getByRole('button', { name: /table/ }), { key: 'ArrowRight' });
  fireEvent.keyDown(screen.getByRole('button', { name: /window/ }), { key: 'ArrowDown', shiftKey: true });
  const { gaze, gazeSpans } = (shownDocument().move[0] as Row<'move'>).body as Walk;
  expect(gaze).toMatchObject({ name: 'table', point: [2.1, 0.8, 3], centre: [0, 0, 0] });
  expect(gazeSpans![0]!.gaze).toMatchObject({ point: [5, 1.5, 0] });
  expect(gazeSpans![1]!.gaze).toEqual({ kind: 'ahead', distance: 2 });
});
