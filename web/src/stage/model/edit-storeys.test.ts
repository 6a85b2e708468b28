import { describe, expect, test } from '@jest/globals';
import type { StoreyChange } from '@eskovan/core/document';
import fc from 'fast-check';
import { changeOf, isFree, nextHeight, withStorey } from './edit-storeys.ts';

describe('corrections of storeys', () => {
  test('remember where a storey was found, however often it is moved', () => {
    const once = withStorey([], 3, 3.2);
    const twice = withStorey(once, 3.2, 2.9);
    expect(once).toEqual([{ found: 3, elevation: 3.2 }]);
    expect(twice).toEqual([{ found: 3, elevation: 2.9 }]);
    expect(changeOf(twice, 2.9)).toEqual({ found: 3, elevation: 2.9 });
    expect(changeOf(twice, 3)).toBeNull();
  });

  test('vanish where a storey is moved back to where it was found', () => {
    expect(withStorey(withStorey([], 3, 3.2), 3.2, 3)).toEqual([]);
  });

  test('leave a found storey out, and forget an added one', () => {
    expect(withStorey([], 3, null)).toEqual([{ found: 3, elevation: null }]);
    const added: StoreyChange[] = [{ found: null, elevation: 6 }];
    expect(withStorey(added, 6, 6.5)).toEqual([{ found: null, elevation: 6.5 }]);
    expect(withStorey(added, 6, null)).toEqual([]);
  });

  test('touch no other storey', () => {
    const height = fc.integer({ min: -50, max: 500 }).map((value) => value / 10);
    fc.assert(
      fc.property(height, height, height, (a, b, to) => {
        fc.pre(Math.abs(a - b) > 0.3 && to !== b);
        const before = withStorey([], a, a + 0.05);
        expect(withStorey(before, b, to)).toEqual(
          expect.arrayContaining([{ found: a, elevation: expect.closeTo(a + 0.05, 9) }]),
        );
      }),
    );
  });
});

test('another storey goes above the highest, and none into another', () => {
  expect(nextHeight([])).toBe(0);
  expect(nextHeight([0.51, 3.74, -0.02])).toBeCloseTo(6.74, 9);
  expect(isFree([0, 3], 1.5)).toBe(true);
  expect(isFree([0, 3], 2.8)).toBe(false);
});
