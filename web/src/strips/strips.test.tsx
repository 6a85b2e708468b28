import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { CompiledWalk } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { workbench } from '../desk/workbench.ts';
import { exampleWalk } from '../testing/studio.tsx';
import { Strips } from './strips.tsx';

const walk = new CompiledWalk(
  exampleWalk([
    [0, 0],
    [8, 0],
  ]),
  new Footing(new Float32Array(0)),
);
const rate = { num: 25, den: 1 };
const onTime = jest.fn<(time: number) => void>();

beforeEach(() => {
  workbench.set({ time: 2 });
  onTime.mockClear();
  render(<Strips move={walk} rate={rate} onTime={onTime} />);
});
afterEach(cleanup);

describe('the strips', () => {
  test('the playhead is a slider that says the timecode', () => {
    const slider = screen.getByRole('slider', { name: 'Time' });
    expect(slider.getAttribute('aria-valuetext')).toBe('00:00:02:00');
    expect(Number(slider.getAttribute('aria-valuemax'))).toBeCloseTo(walk.duration, 1);
  });

  test.each([
    ['ArrowRight', 2.04],
    ['ArrowLeft', 1.96],
    ['PageDown', 3],
    ['PageUp', 1],
    ['Home', 0],
    ['End', walk.duration],
  ])('%s goes to %f s', (key, time) => {
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Time' }), { key });
    expect(onTime).toHaveBeenCalledWith(expect.closeTo(time, 6));
  });

  test('a press on the charts goes to a whole frame there; a press on their names does not', () => {
    const charts = screen.getByTestId('strip-charts');
    fireEvent.pointerDown(charts, { clientX: 108 + (800 - 108 - 18) / 2, button: 0, pointerId: 1 });
    const [time] = onTime.mock.calls[0]!;
    expect(time).toBeCloseTo(walk.duration / 2, 1);
    expect(Math.abs(time * 25 - Math.round(time * 25))).toBeLessThan(1e-6);
    onTime.mockClear();
    fireEvent.pointerDown(charts, { clientX: 40, button: 0, pointerId: 1 });
    expect(onTime).not.toHaveBeenCalled();
  });

  test('names its charts with their units', () => {
    for (const title of ['Section', 'Pace']) expect(screen.getByText(title)).toBeTruthy();
    expect(screen.getByText(/1\.4 m\/s/)).toBeTruthy();
  });
});
