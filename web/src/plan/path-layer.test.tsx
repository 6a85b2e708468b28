import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { PlanCurve } from '@eskovan/core/path';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { exampleWalk, uuid } from '../testing/studio.tsx';
import { chainToSvg, PathLayer } from './path-layer.tsx';

const walk = exampleWalk([
  [0, 0],
  [4, 0],
  [4, 4],
]);
const calls = {
  onSelectNode: jest.fn(),
  onMoveNode: jest.fn(),
  onDeleteNode: jest.fn(),
  onToggleNode: jest.fn(),
  onPressPath: jest.fn(),
  onRadius: jest.fn(),
  onInsert: jest.fn(),
};
const show = (elevation = 0, body = walk, chosen: string[] = []) =>
  render(
    <svg>
      <PathLayer
        path={body.path}
        isShown={({ y }) => Math.abs(y - elevation) < 1.6}
        selectedNodes={chosen}
        {...calls}
      />
    </svg>,
  );
const node = (n: number) => screen.getByRole('button', { name: new RegExp(`^Node ${n},`) });

afterEach(() => {
  cleanup();
  for (const call of Object.values(calls)) call.mockClear();
});

describe('the path on the plan', () => {
  test('nodes move with the arrows, by a metre with Shift, and answer C and Delete', () => {
    show();
    fireEvent.keyDown(node(2), { key: 'ArrowLeft' });
    fireEvent.keyDown(node(2), { key: 'ArrowDown', shiftKey: true });
    expect(calls.onMoveNode.mock.calls).toEqual([
      [uuid(901), 3.9, 0, 0],
      [uuid(901), 4, 1, 0],
    ]);
    fireEvent.keyDown(node(3), { key: 'c' });
    expect(calls.onToggleNode).toHaveBeenCalledWith(uuid(902));
    fireEvent.keyDown(node(1), { key: 'Delete' });
    expect(calls.onDeleteNode).toHaveBeenCalledWith(uuid(900));
    fireEvent.keyDown(node(1), { key: 'x' });
    expect(calls.onDeleteNode).toHaveBeenCalledTimes(1);
  });

  test('a press selects; only a real drag moves, and its end is kept once', () => {
    show();
    fireEvent.pointerDown(node(1), { button: 0, clientX: 0, clientY: 0, pointerId: 5 });
    expect(calls.onSelectNode).toHaveBeenCalledWith(uuid(900), 'only');
    fireEvent.pointerUp(node(1), { clientX: 0, clientY: 0, pointerId: 5 });
    expect(calls.onMoveNode).not.toHaveBeenCalled();
  });

  test('Shift and Ctrl choose more; one of several chosen ones keeps the others when it is pressed', () => {
    show(0, walk, [uuid(900), uuid(901)]);
    fireEvent.pointerDown(node(3), { button: 0, pointerId: 5, shiftKey: true });
    expect(calls.onSelectNode).toHaveBeenLastCalledWith(uuid(902), 'range');
    fireEvent.pointerDown(node(2), { button: 0, pointerId: 5, ctrlKey: true });
    expect(calls.onSelectNode).toHaveBeenLastCalledWith(uuid(901), 'toggle');
    calls.onSelectNode.mockClear();
    fireEvent.pointerDown(node(2), { button: 0, pointerId: 5 });
    expect(calls.onSelectNode).not.toHaveBeenCalled();
  });

  test('every node says what it is and where', () => {
    show(0, {
      ...walk,
      path: { ...walk.path, nodes: walk.path.nodes.map((n, i) => ({ ...n, kind: i === 1 ? 'corner' : 'smooth' })) },
    });
    expect(screen.getAllByRole('button').map((button) => button.getAttribute('aria-label'))).toEqual([
      'Node 1, smooth, at 0.00, 0.00',
      'Node 2, corner, at 4.00, 0.00',
      'Node 3, smooth, at 4.00, 4.00',
    ]);
  });

  test('on another storey the line is drawn faint', () => {
    show(0);
    expect(screen.getByTestId('path').getAttribute('d')).not.toBe('');
    cleanup();
    show(6);
    expect(screen.getByTestId('path').getAttribute('d')).toBe('');
  });

  test('a press on the line is told once, a double press asks for a node', () => {
    const { container } = show();
    const line = container.querySelector('path[stroke="transparent"]')!;
    fireEvent.pointerDown(line, { button: 0 });
    expect(calls.onPressPath).toHaveBeenCalledTimes(1);
    fireEvent.doubleClick(line);
    expect(calls.onInsert).toHaveBeenCalledTimes(1);
  });

  test('the drawn line is the very curve that is walked', () => {
    const { chain } = new PlanCurve(walk.path);
    const d = chainToSvg(chain);
    expect(d.startsWith('M0 0C')).toBe(true);
    expect(d.endsWith('4 4')).toBe(true);
    expect(d.match(/C/g)).toHaveLength(chain.length / 8);
    expect(d.match(/M/g)).toHaveLength(1);
  });
});
