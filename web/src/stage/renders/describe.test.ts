import { describe, expect, test } from '@jest/globals';
import { rateText } from '../shared/rates.ts';
import { secondsLeft } from './describe.ts';

describe('render jobs', () => {
  test('the time left follows from how it has gone so far', () => {
    const job = { state: 'drawing' as const, done: 25, frames: 100, started: 1000 };
    expect(secondsLeft(job, 11_000)).toBeCloseTo(30, 6);
    expect(secondsLeft({ ...job, done: 1 }, 11_000)).toBeNull();
    expect(secondsLeft({ ...job, state: 'waiting' }, 11_000)).toBeNull();
  });

  test.each([
    [{ num: 24, den: 1 }, '24'],
    [{ num: 30_000, den: 1001 }, '29.97'],
    [{ num: 24_000, den: 1001 }, '23.976'],
  ])('rates are said as people say them', (rate, words) => expect(rateText(rate)).toBe(words));
});
