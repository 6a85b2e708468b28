import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { LABELS, panned, stripScaleOf, valueStep, zoomed, type StripAxis } from './scales.ts';

const whole = { from: 0, to: 1 };
/** Ten metres in twenty seconds, of which ten are stood at four metres. */
const paused = {
  duration: 20,
  path: {
    length: 10,
    stationAt: (time: number) => (time < 4 ? time : time < 14 ? 4 : time - 10),
    timeAt: (station: number) => (station <= 4 ? station : station + 10),
  },
};
const anyPart = fc.double({ min: 0, max: 1, noNaN: true });

describe('the axis of the strips', () => {
  test('by station a stay is one place, and what follows is where it is on the way', () => {
    const { x, by } = stripScaleOf(1000, paused, { by: 'station', ...whole });
    expect(by).toBe('station');
    expect(x(4)).toBeCloseTo(x(13.9), 9);
    expect(x(20) - x(15)).toBeCloseTo(x(4) - x(-1), 9);
  });

  test('what gets nowhere is shown by time', () => {
    expect(stripScaleOf(1000, { duration: 5, path: null }, { by: 'station', ...whole }).by).toBe('time');
  });

  test('a pixel and its time are each other’s, however close one looks', () => {
    fc.assert(
      fc.property(anyPart, fc.double({ min: 0.05, max: 1, noNaN: true }), anyPart, (at, wide, part) => {
        const axis = panned({ by: 'time', from: 0, to: wide }, at / wide);
        const { x, timeAt, inner } = stripScaleOf(1200, paused, axis);
        const pixels = LABELS + part * inner;
        expect(x(timeAt(pixels))).toBeCloseTo(pixels, 6);
      }),
    );
  });

  test('looking closer keeps the place under the hand where it is, and never leaves the move', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(0.5, 0.8, 1.25, 2), anyPart), { maxLength: 12 }), (steps) => {
        let axis: StripAxis = { by: 'time', ...whole };
        for (const [factor, part] of steps) {
          const about = axis.from + part * (axis.to - axis.from);
          const next = zoomed(axis, factor, about, 20);
          expect(next.from).toBeGreaterThanOrEqual(-1e-12);
          expect(next.to).toBeLessThanOrEqual(1 + 1e-12);
          expect((next.to - next.from) * 20).toBeGreaterThan(0.5 - 1e-9);
          if (next.from > 1e-9 && next.to < 1 - 1e-9)
            expect((about - next.from) / (next.to - next.from)).toBeCloseTo(part, 6);
          axis = next;
        }
      }),
    );
  });
});

test('a hand raises things by 5 cm, and small ones by what a few pixels are', () => {
  expect([0.05, 0.027, 0.01, 0.004, 0.0005].map(valueStep)).toEqual([0.05, 0.05, 0.02, 0.01, 0.001]);
});
