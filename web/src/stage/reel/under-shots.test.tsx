import { expect, test } from '@jest/globals';
import { act, render } from '@testing-library/react';
import { stripScaleOf } from '../../strips/scales.ts';
import type { OpenReel } from './open-reel.ts';
import { DrawnAhead } from './under-shots.tsx';
import type { Ahead } from './use-ahead.ts';

/** Frames that come one by one, as the worker that draws ahead tells of them. */
function aheadOf(there: Set<string>): { ahead: Ahead; tell: () => void } {
  let version = 0;
  const listeners = new Set<() => void>();
  const ahead = {
    desk: { store: { has: (key: string) => there.has(key) } },
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    version: () => version,
  } as unknown as Ahead;
  const tell = () => {
    version += 1;
    listeners.forEach((listener) => listener());
  };
  return { ahead, tell };
}

test('the line of what is drawn ahead grows while nothing else changes', () => {
  const there = new Set(['a']);
  const { ahead, tell } = aheadOf(there);
  const keys = ['a', 'b', 'c', 'd'];
  const open = { plan: { frames: 4 }, rate: { num: 25, den: 1 } } as OpenReel;
  const scale = stripScaleOf(600, { duration: 0.16, path: null }, { by: 'time', from: 0, to: 1 });
  const { container } = render(
    <svg>
      <DrawnAhead {...{ ahead, keys, scale, open }} top={0} />
    </svg>,
  );
  expect(container.querySelectorAll('rect')).toHaveLength(1);
  there.add('b').add('d');
  act(tell);
  expect(container.querySelectorAll('rect')).toHaveLength(3);
});
