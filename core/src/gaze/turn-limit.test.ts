import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { limitTurning } from './index.ts';

const STEP = 0.02;
const limit = { rate: 1, acceleration: 2 };
const table = (count: number, of: (time: number) => number) =>
  Float64Array.from({ length: count }, (_, i) => of(i * STEP));
const flat = (count: number) => new Float64Array(count);
const differences = (values: Float64Array) =>
  Array.from({ length: values.length - 1 }, (_, i) => (values[i + 1]! - values[i]!) / STEP);
const fastest = ({ pan, tilt }: { pan: Float64Array; tilt: Float64Array }) => {
  const [dp, dt] = [differences(pan), differences(tilt)];
  const rates = dp.map((value, i) => Math.hypot(value, dt[i]!));
  const changes = dp.slice(1).map((value, i) => Math.hypot(value - dp[i]!, dt[i + 1]! - dt[i]!) / STEP);
  return { rate: Math.max(...rates), acceleration: Math.max(...changes) };
};

describe('a gaze with bounds', () => {
  test('what is within them comes through as it was', () => {
    const pan = table(400, (t) => 0.8 * Math.sin(0.9 * t));
    const out = limitTurning({ pan, tilt: flat(400) }, STEP, limit, null);
    out.pan.forEach((value, i) => expect(value).toBeCloseTo(pan[i]!, 6));
  });

  test('a jump of half a turn is begun earlier and ended later, evenly on both sides, within the bounds', () => {
    const pan = table(801, (t) => (t < 8 ? 0 : Math.PI));
    const out = limitTurning({ pan, tilt: flat(801) }, STEP, limit, null);
    const { rate, acceleration } = fastest(out);
    expect(rate).toBeLessThanOrEqual(limit.rate * (1 + 1e-9));
    expect(acceleration).toBeLessThanOrEqual(limit.acceleration * (1 + 1e-6));
    // No lag: half-way when the jump is.
    expect(out.pan[400]!).toBeCloseTo(Math.PI / 2, 1);
    expect(out.pan[0]).toBeCloseTo(0, 6);
    expect(out.pan[800]).toBeCloseTo(Math.PI, 2);
    // By hand: with rate 1 and acceleration 2 half a turn takes π + 0.5 s; forward after the jump, backward before it.
    expect(out.pan[400 - Math.ceil((Math.PI + 1) / STEP)]!).toBeLessThan(0.05);
  });

  test('holds for any gaze', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(number(-4, 4), number(-1, 1)), { minLength: 2, maxLength: 12 }), (corners) => {
        const count = 40 * corners.length;
        const at = (t: number, k: 0 | 1) => corners[Math.min(corners.length - 1, Math.floor(t / 0.8))]![k];
        const out = limitTurning(
          { pan: table(count, (t) => at(t, 0)), tilt: table(count, (t) => at(t, 1)) },
          STEP,
          limit,
          null,
        );
        const { rate, acceleration } = fastest(out);
        expect(rate).toBeLessThanOrEqual(limit.rate * (1 + 1e-9));
        expect(acceleration).toBeLessThanOrEqual(limit.acceleration * (1 + 1e-6));
      }),
    );
  });

  test('going round and round, the end is the beginning and a turn later', () => {
    const count = 501;
    const pan = table(count, (t) => (2 * Math.PI * t) / 10 + 0.9 * Math.sin((2 * Math.PI * t) / 10) ** 3);
    const out = limitTurning({ pan, tilt: flat(count) }, STEP, limit, 2 * Math.PI);
    expect(out.pan[count - 1]! - out.pan[0]!).toBeCloseTo(2 * Math.PI, 2);
    const over = [...differences(out.pan).slice(-1), ...differences(out.pan).slice(0, 1)];
    expect(Math.abs(over[1]! - over[0]!) / STEP).toBeLessThan(limit.acceleration * 1.5);
  });
});
