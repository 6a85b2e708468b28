import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pace } from '../document/index.ts';
import { minimumJerk } from '../geometry/index.ts';
import { ACCELERATION_LIMIT, MINIMUM_JERK_PEAK, minimumJerkArea, minimumJerkSpeed, paceProfile } from './index.ts';

const shapes = ['constant', 'soft', 'ease both', 'ease out of rest', 'ease to rest', 'carry'] as const;
const anyPace: fc.Arbitrary<Pace> = fc.record({
  by: fc.constantFrom('speed' as const, 'duration' as const),
  speed: fc.double({ min: 0.1, max: 5, noNaN: true }),
  duration: fc.double({ min: 0.5, max: 300, noNaN: true }),
  shape: fc.constantFrom(...shapes),
});
const anyLength = fc.double({ min: 0.05, max: 500, noNaN: true });

describe('minimum jerk', () => {
  // Source: Flash & Hogan 1985: peak speed 1.875 × mean, at half time.
  test('peaks at 1.875 times the mean, in the middle', () => {
    let peak = 0;
    let when = 0;
    for (let i = 0; i <= 1000; i += 1) {
      const speed = minimumJerkSpeed(i / 1000);
      if (speed > peak) [peak, when] = [speed, i / 1000];
    }
    expect(peak).toBeCloseTo(1.875, 12);
    expect(peak).toBeCloseTo(MINIMUM_JERK_PEAK, 12);
    expect(when).toBe(0.5);
  });

  test('speed and area are its derivative and integral', () => {
    for (let tau = 0.05; tau < 1; tau += 0.05) {
      const h = 1e-5;
      expect((minimumJerk(tau + h) - minimumJerk(tau - h)) / (2 * h)).toBeCloseTo(minimumJerkSpeed(tau), 6);
      expect((minimumJerkArea(tau + h) - minimumJerkArea(tau - h)) / (2 * h)).toBeCloseTo(minimumJerk(tau), 6);
    }
  });
});

describe('pace profiles', () => {
  test('never run backward, start at the start and end at the end', () => {
    fc.assert(
      fc.property(anyPace, anyLength, (pace, length) => {
        const profile = paceProfile(pace, { length });
        expect(profile.stationAt(0)).toBe(0);
        expect(Math.abs(profile.stationAt(profile.duration) - length)).toBeLessThan(1e-9 * length + 1e-9);
        let before = 0;
        for (let i = 1; i <= 200; i += 1) {
          const station = profile.stationAt((profile.duration * i) / 200);
          expect(station).toBeGreaterThanOrEqual(before - 1e-12);
          before = station;
        }
      }),
    );
  });

  test('speed integrates to the length of the path', () => {
    fc.assert(
      fc.property(anyPace, anyLength, (pace, length) => {
        const profile = paceProfile(pace, { length });
        const steps = 4000;
        let way = 0;
        for (let i = 0; i < steps; i += 1) way += profile.speedAt((profile.duration * (i + 0.5)) / steps);
        expect(Math.abs((way * profile.duration) / steps - length)).toBeLessThan(2e-3 * length);
      }),
      { numRuns: 40 },
    );
  });

  test('by duration lasts exactly that; by speed never exceeds it', () => {
    fc.assert(
      fc.property(anyPace, anyLength, (pace, length) => {
        const profile = paceProfile(pace, { length });
        if (pace.by === 'duration')
          expect(Math.abs(profile.duration - pace.duration)).toBeLessThan(1e-9 * pace.duration);
        else expect(profile.cruise).toBeLessThanOrEqual(pace.speed * (1 + 1e-12));
      }),
    );
  });

  test('a soft start keeps the acceleration limit', () => {
    fc.assert(
      fc.property(anyLength, fc.double({ min: 0.1, max: 5, noNaN: true }), (length, speed) => {
        const profile = paceProfile({ by: 'speed', speed, duration: 1, shape: 'soft' }, { length });
        const dt = profile.duration / 2000;
        let most = 0;
        for (let t = dt; t < profile.duration; t += dt)
          most = Math.max(most, Math.abs(profile.speedAt(t) - profile.speedAt(t - dt)) / dt);
        expect(most).toBeLessThan(ACCELERATION_LIMIT * 1.001);
      }),
      { numRuns: 30 },
    );
  });

  test('constant speed and duration are each other’s inverse', () => {
    const profile = paceProfile({ by: 'speed', speed: 1.25, duration: 1, shape: 'constant' }, { length: 25 });
    expect(profile.duration).toBe(20);
    expect(profile.stationAt(10)).toBe(12.5);
  });

  test.each([0, -1, Number.NaN, Infinity])('refuses a path of %p m', (length) => {
    expect(() => paceProfile({ by: 'speed', speed: 1, duration: 1, shape: 'soft' }, { length })).toThrow(RangeError);
  });
});
