import { beforeEach, describe, expect, test } from '@jest/globals';
import { clockAfter, shuttle, stopPlaying, togglePlaying } from './playing.ts';
import { workbench } from './workbench.ts';

beforeEach(() => workbench.set({ time: 4, playing: false, playRate: 1 }));
const state = () => {
  const { time, playing, playRate } = workbench.get();
  return { time, playing, playRate };
};

describe('playing', () => {
  test('forward, faster each time it is asked again, backward, and stopped', () => {
    shuttle(1, 10);
    expect(state()).toEqual({ time: 4, playing: true, playRate: 1 });
    for (const rate of [2, 4, 8, 8]) {
      shuttle(1, 10);
      expect(state().playRate).toBe(rate);
    }
    shuttle(-1, 10);
    expect(state().playRate).toBe(-1);
    shuttle(-1, 10);
    expect(state().playRate).toBe(-2);
    stopPlaying();
    expect(state()).toEqual({ time: 4, playing: false, playRate: 1 });
  });

  test('at its end it begins again, from the end that it comes from', () => {
    workbench.set({ time: 10 });
    shuttle(1, 10);
    expect(state().time).toBe(0);
    stopPlaying();
    workbench.set({ time: 0 });
    shuttle(-1, 10);
    expect(state().time).toBe(10);
    stopPlaying();
    workbench.set({ time: 10 });
    togglePlaying(10);
    expect(state()).toEqual({ time: 0, playing: true, playRate: 1 });
  });

  test('slowly it is a part of real time, and asked again it stays so', () => {
    shuttle(1, 10, 0.25);
    expect(state().playRate).toBe(0.25);
    shuttle(1, 10, 0.25);
    expect(state().playRate).toBe(0.25);
    // From slow to real time, not to twice of slow.
    shuttle(1, 10);
    expect(state().playRate).toBe(1);
  });

  test('the clock stops at either end, or goes round', () => {
    expect(clockAfter({ time: 9.9, playRate: 1 }, 0.2, 10, false)).toEqual({ time: 10, playing: false });
    expect(clockAfter({ time: 0.1, playRate: -2 }, 0.2, 10, false)).toEqual({ time: 0, playing: false });
    expect(clockAfter({ time: 5, playRate: 0.5 }, 0.2, 10, false)).toEqual({ time: 5.1, playing: true });
    expect(clockAfter({ time: 9.9, playRate: 1 }, 0.2, 10, true).time).toBeCloseTo(0.1, 9);
    expect(clockAfter({ time: 0.1, playRate: -1 }, 0.2, 10, true).time).toBeCloseTo(9.9, 9);
  });
});
