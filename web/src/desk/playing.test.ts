import { beforeEach, describe, expect, test } from '@jest/globals';
import {
  clockAfter,
  frameAfter,
  mayStep,
  setRound,
  shuttle,
  stepBegins,
  stopPlaying,
  togglePlaying,
} from './playing.ts';
import { frameAt } from '@eskovan/core/reel';
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

  test('every frame: the next one comes when this one has been seen, and not sooner than in life', () => {
    const rate = { num: 25, den: 1 };
    const at = (time: number, playRate = 1) => ({ time, playRate });
    expect(mayStep(at(2), 39, rate, 2)).toBe(false);
    expect(mayStep(at(2), 41, rate, 2)).toBe(true);
    expect(mayStep(at(2), 41, rate, 1.96)).toBe(false);
    // At half speed each is seen for twice as long; a picture out of sight holds nothing up for ever.
    expect(mayStep(at(2, 0.5), 60, rate, 2)).toBe(false);
    expect(mayStep(at(2), 4000, rate, 1.96)).toBe(true);
  });

  test('every frame: on a screen of sixty pictures a second 24, 25 and 30 of a film come as often as in life', () => {
    for (const num of [24, 25, 30]) {
      const frame = 1000 / num;
      let [before, steps] = [0, 0];
      for (let tick = 1; tick <= 600; tick += 1) {
        const now = (tick * 1000) / 60;
        if (!mayStep({ time: 2, playRate: 1 }, now - before, { num, den: 1 }, 2)) continue;
        before = stepBegins(before, now, frame);
        steps += 1;
      }
      expect(Math.abs(steps - 10 * num)).toBeLessThanOrEqual(1);
    }
    // What came far too late makes nothing after it hurry.
    expect(stepBegins(0, 500, 40)).toBe(500);
  });

  test('every frame: none is left out and none comes twice, at any rate, forward and backward', () => {
    for (const rate of [
      { num: 24, den: 1 },
      { num: 30_000, den: 1001 },
      { num: 25, den: 1 },
    ])
      for (const playRate of [1, 2, 0.25, -1]) {
        let now = { time: playRate > 0 ? 0 : 10, playing: true };
        const frames: number[] = [];
        for (let i = 0; i < 200; i += 1) {
          now = frameAfter({ time: now.time, playRate }, rate, 10, false);
          frames.push(frameAt(now.time + 1e-6, rate));
        }
        for (let i = 1; i < frames.length; i += 1) expect(frames[i]! - frames[i - 1]!).toBe(Math.sign(playRate));
      }
    const end = frameAfter({ time: 9.99, playRate: 1 }, { num: 25, den: 1 }, 10, false);
    expect(end).toEqual({ time: 10, playing: false });
  });

  test('round and round a stretch: gets there first, then stays within, both ways', () => {
    const round = { from: 3, to: 5 };
    const after = (time: number, playRate: number, seconds: number) =>
      clockAfter({ time, playRate, round }, seconds, 10, false).time;
    expect(after(1, 1, 0.5)).toBe(1.5);
    expect(after(4.9, 1, 0.3)).toBeCloseTo(3.2, 9);
    expect(after(4, 1, 7)).toBeCloseTo(3, 9);
    expect(after(3.1, -1, 0.3)).toBeCloseTo(4.8, 9);
    expect(clockAfter({ time: 4.9, playRate: 1, round }, 0.3, 10, false).playing).toBe(true);
  });

  test('its ends are where one says; an end past the other opens the far side again', () => {
    workbench.set({ round: null });
    setRound('from', 3, 10);
    setRound('to', 5, 10);
    expect(workbench.get().round).toEqual({ from: 3, to: 5 });
    setRound('from', 7, 10);
    expect(workbench.get().round).toEqual({ from: 7, to: 10 });
    setRound('to', 2, 10);
    expect(workbench.get().round).toEqual({ from: 0, to: 2 });
    workbench.set({ round: null });
  });
});
