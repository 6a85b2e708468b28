import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { checkMove } from '@eskovan/core/check';
import { FIRST_LIMITS, type MoveBody, type Walk } from '@eskovan/core/document';
import { CompiledWalk } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { workbench } from '../../desk/workbench.ts';
import { exampleRow, exampleWalk } from '../../testing/studio.tsx';
import { ChecksCard } from './checks-card.tsx';
import { useTriedBody } from './trying.ts';

/** A square floor of forty metres at height 0. */
const ground = Float32Array.of(-20, 0, -20, -20, 0, 20, 20, 0, 20, -20, 0, -20, 20, 0, 20, 20, 0, -20);
/** A wall across x = 10, three metres high. */
const wall = Float32Array.of(10, 0, -2, 10, 3, -2, 10, 3, 2, 10, 0, -2, 10, 3, 2, 10, 0, 2);
const floor = new Footing(ground, wall);
const show = (change: Partial<Walk>, points: readonly (readonly [number, number])[] = STRAIGHT, footing = floor) =>
  render(
    <ChecksCard
      row={exampleRow(20, 'Arrival', exampleWalk(points))}
      findings={checkMove(new CompiledWalk({ ...exampleWalk(points), ...change }, footing), footing, FIRST_LIMITS)}
      fine="All is well."
    />,
  );
const STRAIGHT = [
  [-6, 0],
  [6, 0],
] as const;

afterEach(() => {
  cleanup();
  workbench.set({ time: 0, playing: false, scout: null });
});

describe('the checks of a walk', () => {
  test('a calm walk over a floor is fine', () => {
    show({});
    expect(screen.getByText('fine')).toBeTruthy();
    expect(screen.queryByLabelText('Problem')).toBeNull();
  });

  test('a path off the floor says from where to where', () => {
    show({}, [
      [0, 0],
      [30, 0],
    ]);
    const said = /No floor for [\d.]+ m, from ([\d.]+) to ([\d.]+) m/.exec(screen.getByText(/No floor/).textContent!)!;
    expect(Number(said[1])).toBeCloseTo(20, 0);
    expect(Number(said[2])).toBeCloseTo(30, 0);
  });

  test('a path through a wall says where, and one looks at it', async () => {
    show({}, [
      [6, 0],
      [14, 0],
    ]);
    expect(screen.getByText(/goes through a wall or a pillar at 4\.0 m/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /^Show/ }));
    expect(workbench.get().time).toBeGreaterThan(3);
  });

  test('where nothing is known of walls it is not called fine', () => {
    show({}, STRAIGHT, new Footing(ground));
    expect(screen.getByText(/has not been looked at/)).toBeTruthy();
    expect(screen.queryByText('fine')).toBeNull();
  });

  test('haste says how fast it is', () => {
    show({ pace: { by: 'speed', speed: 2, duration: 10, shape: 'soft' } }, [
      [-19, 0],
      [19, 0],
    ]);
    expect(screen.getByText(/2\.00 m\/s is faster than people walk/)).toBeTruthy();
  });

  test('an object that is passed too near turns the eye too fast: where, how much, and a look at it', async () => {
    const point: [number, number, number] = [0, 1.6, 0.6];
    const model = '00000000-0000-4000-8000-000000000001';
    show({ gaze: { kind: 'object', model, name: 'Lamp', point, centre: point } });
    // 1.2 m/s at 0.6 m: two radians, 115° a second, when half the way is done.
    const text = screen.getByText(/too fast to follow/).textContent!;
    expect(Number(/up to (\d+)°/.exec(text)![1])).toBeGreaterThan(100);
    expect(screen.getAllByLabelText('Problem')).toHaveLength(1);
    workbench.set({ playing: true });
    await userEvent.click(screen.getByRole('button', { name: /^Show/ }));
    const { time, playing } = workbench.get();
    expect(playing).toBe(false);
    expect(time).toBeCloseTo(new CompiledWalk(exampleWalk(STRAIGHT), floor).duration / 2, 0);
  });

  test('a turn that is only quick is a note', () => {
    const point: [number, number, number] = [0, 1.6, 1.6];
    const model = '00000000-0000-4000-8000-000000000001';
    show({ gaze: { kind: 'object', model, name: 'Lamp', point, centre: point } });
    expect(screen.getByLabelText('Note')).toBeTruthy();
    expect(screen.getByText(/faster than 30°/)).toBeTruthy();
  });

  test('a fix is shown while it is pointed at, and nothing of it is kept', async () => {
    const row = exampleRow(20, 'Arrival', exampleWalk(STRAIGHT));
    const hasty = { ...exampleWalk(STRAIGHT), pace: { by: 'speed', speed: 2, duration: 10, shape: 'soft' } } as Walk;
    const move = new CompiledWalk(hasty, floor);
    const tried = jest.fn((body: MoveBody) => body);
    const Shown = () => (useTriedBody(row.id) ? <p>as it would be</p> : null);
    render(
      <>
        <Shown />
        <ChecksCard row={row} findings={checkMove(move, floor, FIRST_LIMITS)} fine="All is well." mend={tried} />
      </>,
    );
    workbench.set({ time: 1 });
    const button = screen.getByRole('button', { name: 'More time' });
    await userEvent.hover(button);
    expect(tried).toHaveBeenCalled();
    expect(screen.getByText('as it would be')).toBeTruthy();
    await userEvent.unhover(button);
    expect(screen.queryByText('as it would be')).toBeNull();
    expect(workbench.get().time).toBe(1);
  });

  test('until the answer is about what is shown it is not called fine', () => {
    render(
      <ChecksCard
        row={exampleRow(20, 'Arrival', exampleWalk(STRAIGHT))}
        findings={[]}
        current={false}
        fine="All is well."
      />,
    );
    expect(screen.getByText('looking')).toBeTruthy();
    expect(screen.queryByText('fine')).toBeNull();
    expect(screen.queryByText('All is well.')).toBeNull();
  });
});
