import { afterEach, describe, expect, test } from '@jest/globals';
import type { Walk } from '@eskovan/core/document';
import { CompiledWalk } from '@eskovan/core/move';
import { FloorIndex } from '@eskovan/core/survey';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { workbench } from '../../desk/workbench.ts';
import { exampleWalk } from '../../testing/studio.tsx';
import { ChecksCard } from './checks-card.tsx';

/** A square floor of forty metres at height 0. */
const floor = new FloorIndex(Float32Array.of(-20, 0, -20, -20, 0, 20, 20, 0, 20, -20, 0, -20, 20, 0, 20, 20, 0, -20));
const show = (change: Partial<Walk>, points: readonly (readonly [number, number])[] = STRAIGHT) =>
  render(<ChecksCard walk={new CompiledWalk({ ...(exampleWalk(points) as Walk), ...change }, floor)} />);
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
    const said = /No floor under the path from ([\d.]+) to ([\d.]+) m/.exec(screen.getByText(/No floor/).textContent!)!;
    expect(Number(said[1])).toBeCloseTo(20, 0);
    expect(Number(said[2])).toBeCloseTo(30, 0);
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
    expect(screen.getByLabelText('Problem')).toBeTruthy();
    workbench.set({ playing: true });
    await userEvent.click(screen.getByRole('button', { name: /^Show/ }));
    const { time, playing } = workbench.get();
    expect(playing).toBe(false);
    expect(time).toBeCloseTo(new CompiledWalk(exampleWalk(STRAIGHT) as Walk, floor).duration / 2, 0);
  });

  test('a turn that is only quick is a note', () => {
    const point: [number, number, number] = [0, 1.6, 1.6];
    const model = '00000000-0000-4000-8000-000000000001';
    show({ gaze: { kind: 'object', model, name: 'Lamp', point, centre: point } });
    expect(screen.getByLabelText('Note')).toBeTruthy();
    expect(screen.getByText(/faster than 30°/)).toBeTruthy();
  });
});
