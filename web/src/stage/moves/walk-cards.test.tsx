import { afterEach, describe, expect, test } from '@jest/globals';
import { checkMove } from '@eskovan/core/check';
import { FIRST_LIMITS, walkOf, type Gaze } from '@eskovan/core/document';
import { Footing } from '@eskovan/core/survey';
import { CompiledWalk } from '@eskovan/core/move';
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { editBody } from '../../data/edit-row.ts';
import { itemsOf, selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
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
import { WalkCards } from './walk-cards.tsx';

const nowhere = new Footing(new Float32Array(0));
const POINTS = [
  [0, 0],
  [4, 0],
  [4, 4],
] as const;

const AT_DESK: Gaze = {
  kind: 'object',
  model: uuid(90),
  name: 'Reading room / Desk 2',
  point: [1, 0.7, 2],
  centre: [1, 0.4, 2],
};

function Cards() {
  const row = useProject().move[0]!;
  const body = walkOf(row.body);
  const move = new CompiledWalk(body, nowhere);
  const findings = checkMove(move, nowhere, FIRST_LIMITS);
  return <WalkCards row={row} body={body} move={move} current cover={null} findings={findings} aspect={16 / 9} />;
}
const start = () =>
  renderInProject(<Cards />, exampleDocument({ move: [exampleRow(20, 'Arrival', exampleWalk(POINTS))] }));
const body = () => walkOf(shownDocument().move[0]!.body);
const enter = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

afterEach(async () => {
  await leaveProject();
  workbench.set({ aiming: null });
});

describe('the cards of a walk', () => {
  test('the pace is given by speed or by time, and what was a result becomes the wish', async () => {
    start();
    await enter('Walking speed, m/s', '3.6 km/h');
    expect(body().pace).toMatchObject({ by: 'speed', speed: 1 });
    const { duration } = new CompiledWalk(body(), nowhere);
    await userEvent.click(screen.getByRole('radio', { name: 'By time' }));
    expect(body().pace.by).toBe('duration');
    expect(body().pace.duration).toBeCloseTo(duration, 2);
    await enter('Takes, s', '500f');
    expect(body().pace.duration).toBe(20);
    // A timecode of the project's rate, and minutes and seconds.
    await enter('Takes, s', '00:00:12:10');
    expect(body().pace.duration).toBeCloseTo(12.4, 9);
    await enter('Takes, s', '1:05');
    expect(body().pace.duration).toBe(65);
    expect(screen.getByLabelText('Takes, s').title).toBe('00:01:05:00');
  });

  test('a stretch of the time lasts longer, begins later, and is turned round; what it is kept by is said', async () => {
    start();
    expect(screen.getByText(/With \[ and \]/)).toBeTruthy();
    act(() => workbench.set({ round: { from: 1, to: 2 } }));
    const { duration } = new CompiledWalk(body(), nowhere);
    await enter('Lasts, s', '2.5');
    expect(body().pace.duration).toBeCloseTo(duration + 1.5, 2);
    expect(body().pace.kept).toBeTruthy();
    expect(screen.getByText('Stretch from 1.00 to 3.50 s')).toBeTruthy();
    expect(screen.getByText(/As fast at every moment as it was made/)).toBeTruthy();
    await enter('Begins at, s', '1.2');
    expect(body().pace.duration).toBeCloseTo(duration + 1.5, 2);
    expect(screen.getByText('Stretch from 1.20 to 3.70 s')).toBeTruthy();
    const before = body().pace.kept;
    await userEvent.click(screen.getByRole('button', { name: 'Speeds the other way round' }));
    expect(body().pace.kept).not.toEqual(before);
    // No time is left for the rest: nothing is changed.
    const kept = body().pace;
    await enter('Begins at, s', '0');
    expect(body().pace).toEqual(kept);
    act(() => workbench.set({ round: null }));
  });

  test('whose eyes, how wide, how far ahead', async () => {
    start();
    await userEvent.click(screen.getByRole('combobox', { name: 'Whose eyes' }));
    await userEvent.click(await screen.findByRole('option', { name: 'Wheelchair' }));
    expect(body().eyeHeight).toBe(1.25);
    await enter('Focal length, mm', '50');
    expect(body().lens.focalLengthMm).toBe(50);
    expect(screen.getByText(/39\.6 × 22\.9/)).toBeTruthy();
    await enter('Looks ahead, m', '350cm');
    expect(body().gaze).toEqual({ kind: 'ahead', distance: 3.5 });
  });

  test('looking at an object: asked for in the picture, named in the card, and back to ahead', async () => {
    start();
    await userEvent.click(screen.getByRole('radio', { name: 'At an object' }));
    expect(workbench.get().aiming).toBe('look');
    expect(screen.getByText(/Press in the picture/)).toBeTruthy();
    expect(body().gaze.kind).toBe('ahead');
    act(() => {
      editBody('move', shownDocument().move[0]!, 'Look at the desk', (now) => ({ ...now, gaze: AT_DESK }));
      workbench.set({ aiming: null });
    });
    expect(await screen.findByText('Desk 2')).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'Ahead' }));
    expect(body().gaze).toEqual({ kind: 'ahead', distance: 2 });
  });

  test('reversing and closing change the order and the end, not the places', async () => {
    start();
    await userEvent.click(screen.getByRole('button', { name: 'Reverse' }));
    expect(body().path.nodes.map(({ x, z }) => [x, z])).toEqual([...POINTS].reverse());
    await userEvent.click(screen.getByRole('button', { name: 'Closed' }));
    expect(body().path.closed).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Closed' }));
    expect(body().path.closed).toBe(false);
  });

  test('the selected node is moved in numbers, made a corner, divided and deleted', async () => {
    start();
    act(() => selection.chooseItem('node', uuid(20), uuid(901)));
    expect(screen.getByRole('heading', { name: 'Node 2' })).toBeTruthy();
    await enter('x, m', '3.5');
    expect(body().path.nodes[1]).toMatchObject({ x: 3.5, z: 0 });
    await userEvent.click(screen.getByRole('button', { name: 'Make a corner' }));
    await enter('Rounding, m', '0.8');
    expect(body().path.nodes[1]).toMatchObject({ kind: 'corner', radius: 0.8 });
    await userEvent.click(screen.getByRole('button', { name: 'Insert after' }));
    expect(body().path.nodes).toHaveLength(4);
    act(() => selection.chooseItem('node', uuid(20), uuid(901)));
    await userEvent.click(screen.getByRole('button', { name: 'Delete' }));
    expect(body().path.nodes.map(({ id }) => id)).not.toContain(uuid(901));
    expect(itemsOf('node', uuid(20)).lead).toBeNull();
  });

  test('says where there is no floor, and when the pace is no walk any more', async () => {
    start();
    expect(screen.getByText(/No floor for .* from 0\.0/)).toBeTruthy();
    await enter('Walking speed, m/s', '1');
    expect(screen.queryByText(/faster than people walk/)).toBeNull();
    await userEvent.click(screen.getByRole('radio', { name: 'By time' }));
    await enter('Takes, s', '3');
    expect(screen.getByText(/faster than people walk/)).toBeTruthy();
  });

  test('the whole path is moved aside, turned, mirrored; chosen nodes are straightened', async () => {
    start();
    await enter('Move aside, m', '1');
    // To the east first: to the right of it is south.
    expect(body().path.nodes[0]!.z).toBeGreaterThan(0.9);
    await userEvent.click(screen.getByRole('button', { name: 'Mirror' }));
    await enter('Turn by, °', '90');
    expect(body().path.nodes).toHaveLength(3);
    expect(screen.getByRole('button', { name: 'Straighten' })).toHaveProperty('disabled', true);
    act(() => {
      selection.chooseItem('node', uuid(20), uuid(900));
      selection.chooseItem('node', uuid(20), uuid(902), 'toggle', [uuid(900), uuid(901), uuid(902)]);
    });
    await userEvent.click(screen.getByRole('button', { name: 'Straighten' }));
    const [a, b, c] = body().path.nodes;
    expect((b!.x - a!.x) * (c!.z - a!.z) - (b!.z - a!.z) * (c!.x - a!.x)).toBeCloseTo(0, 9);
  });

  test('a pause, a slower place and a pin are put where the walk is, changed in numbers, and taken away', async () => {
    start();
    act(() => workbench.set({ time: 3 }));
    await userEvent.click(screen.getByRole('button', { name: 'Pause here' }));
    // It holds on to the node before it.
    expect(body().pace.pauses).toMatchObject([{ anchor: { by: 'node', node: uuid(900) }, seconds: 3 }]);
    await userEvent.click(screen.getByRole('button', { name: 'Slower here' }));
    expect(body().pace.marks).toHaveLength(1);
    expect(body().pace.marks![0]!.speed).toBeLessThan(1.2);
    await userEvent.click(screen.getByRole('button', { name: 'Pin this time' }));
    expect(body().pace.pins).toHaveLength(1);
    const list = screen.getByRole('list', { name: 'In the pace' });
    expect(within(list).getAllByRole('listitem')).toHaveLength(3);
    await userEvent.click(within(list).getByRole('button', { name: /^Take away: Pause/ }));
    expect(body().pace.pauses).toEqual([]);
  });

  test('corners, a carried pace and keys of what changes over time', async () => {
    start();
    await userEvent.click(screen.getByRole('radio', { name: 'Yes' }));
    expect(body().pace.turning).toBe(FIRST_LIMITS.turnNote);
    await userEvent.click(screen.getByRole('radio', { name: 'No' }));
    expect(body().pace.turning).toBeUndefined();
    await userEvent.click(screen.getByRole('combobox', { name: 'Shape of the pace' }));
    await userEvent.click(await screen.findByRole('option', { name: /^Carry/ }));
    await enter('Slow is, %', '25');
    expect(body().pace).toMatchObject({ shape: 'carry', carry: { at: 0.5, slow: 0.25 } });
    act(() => workbench.set({ time: 1 }));
    await userEvent.click(screen.getByRole('button', { name: 'Lift' }));
    await userEvent.click(screen.getByRole('button', { name: 'Focus' }));
    expect(body().tracks?.lift).toHaveLength(1);
    expect(body().tracks?.focus).toMatchObject([{ value: 4 }]);
    // Who pulls a focus sees it.
    expect(body().lens.fNumber).toBe(2.8);
    await userEvent.click(screen.getByRole('button', { name: 'No Lift keys' }));
    expect(body().tracks?.lift).toEqual([]);
  });
});
