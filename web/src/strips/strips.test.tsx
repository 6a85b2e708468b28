import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Key } from '@eskovan/core/document';
import type { ChannelItem } from '@eskovan/core/track';
import { CompiledWalk } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { workbench } from '../desk/workbench.ts';
import { exampleWalk, uuid } from '../testing/studio.tsx';
import type { ItemChange } from './strip-items.tsx';
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

describe('keys of a strip', () => {
  const key = (time: number, value: number, n: number): Key => ({
    id: uuid(300 + n),
    anchor: { by: 'time', time },
    value,
    ease: 'smooth',
  });
  const zoom = new CompiledWalk(
    {
      ...exampleWalk([
        [0, 0],
        [8, 0],
      ]),
      tracks: { focalLength: [key(0, 50, 1), key(4, 100, 2)] },
    },
    new Footing(new Float32Array(0)),
  );
  const start = [key(0, 50, 1), key(4, 100, 2)];
  let keys = start;
  const onKeys = jest.fn((_label: string, track: string, change: (before: Key[]) => Key[]) => {
    expect(track).toBe('focalLength');
    keys = change(keys);
  });
  const timeAndValue = (i: number) => [(keys[i]!.anchor as { time: number }).time, keys[i]!.value];

  beforeEach(() => {
    cleanup();
    keys = start;
    onKeys.mockClear();
    render(<Strips move={zoom} rate={rate} onTime={onTime} onKeys={onKeys} />);
  });

  test('a key says what it is and when, and is moved by arrows from where it is by now', () => {
    const handle = screen.getByRole('slider', { name: 'Lens key 2' });
    expect(handle.getAttribute('aria-valuetext')).toBe('100 mm at 00:00:04:00');
    for (let i = 0; i < 3; i += 1) fireEvent.keyDown(handle, { key: 'ArrowUp' });
    fireEvent.keyDown(handle, { key: 'ArrowLeft', shiftKey: true });
    expect(timeAndValue(1)).toEqual([expect.closeTo(3.6, 9), 103]);
    fireEvent.keyDown(handle, { key: 'Delete' });
    expect(keys).toEqual([start[0]]);
  });

  test('a key is dragged in time and value, stays in the move, and the playhead stays where it is', () => {
    const handle = screen.getByRole('slider', { name: 'Lens key 2' });
    fireEvent.pointerDown(handle, { button: 0, pointerId: 1, clientX: 300, clientY: 100 });
    fireEvent.pointerMove(handle, { pointerId: 1, clientX: 360, clientY: 90 });
    const [time, value] = timeAndValue(1) as [number, number];
    expect(time).toBeGreaterThan(4);
    expect(value).toBeGreaterThan(100);
    fireEvent.pointerMove(handle, { pointerId: 1, clientX: 9000, clientY: 9000 });
    fireEvent.pointerUp(handle, { pointerId: 1, clientX: 9000, clientY: 9000 });
    expect(timeAndValue(1)).toEqual([expect.closeTo(zoom.duration, 1), 8]);
    expect(onTime).not.toHaveBeenCalled();
  });

  test('a double press on a strip that takes keys makes one, on one that does not it makes none', () => {
    const charts = screen.getByTestId('strip-charts');
    fireEvent.doubleClick(charts, { clientX: 450, clientY: 290 });
    expect(keys).toHaveLength(3);
    expect(keys[2]!.value).toBeGreaterThan(50);
    // The pace has marks, no keys.
    fireEvent.doubleClick(charts, { clientX: 450, clientY: 150 });
    expect(keys).toHaveLength(3);
  });
});

describe('what lies in a strip', () => {
  const paused = new CompiledWalk(
    {
      ...exampleWalk([
        [0, 0],
        [8, 0],
      ]),
      pace: {
        by: 'speed',
        speed: 1.2,
        duration: 10,
        shape: 'soft',
        pauses: [{ id: uuid(400), anchor: { by: 'station', station: 4 }, seconds: 3 }],
        marks: [{ id: uuid(401), anchor: { by: 'station', station: 6 }, length: 1, speed: 0.6 }],
      },
    },
    new Footing(new Float32Array(0)),
  );
  const onItem = jest.fn<(item: ChannelItem, change: ItemChange) => void>();
  const item = (name: RegExp) => screen.getByRole('slider', { name });
  beforeEach(() => {
    cleanup();
    onItem.mockClear();
    render(<Strips move={paused} rate={rate} onTime={onTime} onItem={onItem} />);
  });

  test('a pause says how long, is moved by arrows and taken away by Delete', () => {
    fireEvent.keyDown(item(/^Pause, 3\.0 s/), { key: 'ArrowRight' });
    fireEvent.keyDown(item(/^Pause/), { key: 'ArrowLeft', shiftKey: true });
    fireEvent.keyDown(item(/^Pause/), { key: 'Delete' });
    expect(onItem.mock.calls.map(([, change]) => change)).toEqual([
      { by: 'nudge', seconds: expect.closeTo(0.04, 9), value: 0 },
      { by: 'nudge', seconds: expect.closeTo(-0.4, 9), value: 0 },
      { by: 'remove' },
    ]);
  });

  test('a mark is pulled up and down in speed; a drag tells where it is from where it was taken hold of', () => {
    const mark = item(/^Slow/);
    fireEvent.pointerDown(mark, { button: 0, pointerId: 1, clientX: 20, clientY: 100 });
    fireEvent.pointerMove(mark, { pointerId: 1, clientX: 20, clientY: 90 });
    fireEvent.pointerUp(mark, { pointerId: 1, clientX: 20, clientY: 90 });
    const changes = onItem.mock.calls.map(([, change]) => change);
    expect(changes.length).toBeGreaterThan(0);
    for (const change of changes) {
      if (change.by !== 'value') throw new Error('its speed is changed');
      expect(change.value).toBeGreaterThan(0.6);
    }
    expect(onTime).not.toHaveBeenCalled();
  });
});

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
