import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pace } from '../document/index.ts';
import { ACCELERATION_LIMIT, JERK_LIMIT, paceProfile, timeAtStation } from './index.ts';

let serial = 0;
const id = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;
const at = (station: number) => ({ id: id(), anchor: { by: 'station' as const, station } });
const soft = (change: Partial<Pace>): Pace => ({ by: 'speed', speed: 1.2, duration: 40, shape: 'soft', ...change });
const HALF_FRAME = 0.02;

/** A pace with pauses and marks anywhere on a way of 10 to 80 m. */
const anything = fc
  .record({
    length: fc.double({ min: 10, max: 80, noNaN: true }),
    speed: fc.double({ min: 0.5, max: 2.5, noNaN: true }),
    shape: fc.constantFrom<Pace['shape']>('soft', 'constant', 'ease both', 'ease out of rest', 'ease to rest', 'carry'),
    pauses: fc.array(
      fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0.2, max: 8, noNaN: true })),
      {
        maxLength: 4,
      },
    ),
    marks: fc.array(
      fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0.3, max: 2, noNaN: true })),
      { maxLength: 3 },
    ),
  })
  .map(({ length, speed, shape, pauses, marks }) => ({
    length,
    pace: soft({
      speed,
      shape,
      // One of them always: without any the closed form is asked.
      pauses: [[0.4, 1], ...pauses].map(([part, seconds]) => ({ ...at(part! * length), seconds: seconds! })),
      marks: marks.map(([part, to]) => ({ ...at(part * length), length: 3, speed: to })),
    }),
  }));

describe('a pace with marks, pauses and pins', () => {
  test('never runs backward, covers the whole way, and keeps acceleration and jerk', () => {
    fc.assert(
      fc.property(anything, ({ length, pace }) => {
        const profile = paceProfile(pace, { length });
        expect(profile.stationAt(0)).toBeCloseTo(0, 9);
        expect(profile.stationAt(profile.duration)).toBeCloseTo(length, 9);
        const dt = 1 / 240;
        const steps = Math.floor(profile.duration / dt);
        const speeds = Array.from({ length: steps }, (_, i) => profile.speedAt(i * dt));
        const ways = speeds.map((_, i) => profile.stationAt(i * dt));
        expect(Math.min(...ways.slice(1).map((way, i) => way - ways[i]!))).toBeGreaterThan(-1e-9);
        const rates = speeds.slice(1).map((speed, i) => (speed - speeds[i]!) / dt);
        const most = (values: readonly number[]) => Math.max(...values.map(Math.abs));
        expect(most(rates)).toBeLessThan(ACCELERATION_LIMIT * 1.02);
        const jerks = rates.slice(1).map((rate, i) => (rate - rates[i]!) / dt);
        expect(most(jerks)).toBeLessThan(JERK_LIMIT * 1.05);
      }),
      { numRuns: 60 },
    );
  });

  test('speed is what station does over time', () => {
    fc.assert(
      fc.property(anything, fc.double({ min: 0.05, max: 0.95, noNaN: true }), ({ length, pace }, part) => {
        const profile = paceProfile(pace, { length });
        const [t, h] = [profile.duration * part, 1e-4];
        const rate = (profile.stationAt(t + h) - profile.stationAt(t - h)) / (2 * h);
        expect(Math.abs(rate - profile.speedAt(t))).toBeLessThan(1e-3);
      }),
    );
  });

  test('a pause stands still in its place for as long as it says', () => {
    const { pauses, stationAt, speedAt, duration } = paceProfile(soft({ pauses: [{ ...at(10), seconds: 3 }] }), {
      length: 30,
    });
    const from = pauses![0]!.from;
    for (const t of [0.05, 1.5, 2.95]) {
      expect(stationAt(from + t)).toBeCloseTo(10, 3);
      expect(speedAt(from + t)).toBeLessThan(0.03);
    }
    expect(stationAt(from - 0.5)).toBeLessThan(9.99);
    expect(stationAt(from + 3.5)).toBeGreaterThan(10.01);
    const without = paceProfile(soft({ marks: [{ ...at(5), length: 1, speed: 1.2 }] }), { length: 30 }).duration;
    // Three seconds, and what stopping and starting costs: a speed over an acceleration each.
    expect(duration - without).toBeGreaterThan(3 + 1.2 / ACCELERATION_LIMIT);
    expect(duration - without).toBeLessThan(3 + 1.2 / ACCELERATION_LIMIT + 1);
  });

  test('a mark is walked at its speed, the rest at its own', () => {
    const profile = paceProfile(soft({ marks: [{ ...at(15), length: 6, speed: 0.5 }] }), { length: 40 });
    for (let s = 12.05; s < 18; s += 0.2) expect(profile.speedAt(timeAtStation(profile, s))).toBeLessThan(0.5 + 0.01);
    expect(profile.speedAt(timeAtStation(profile, 7))).toBeCloseTo(1.2, 3);
    expect(profile.speedAt(timeAtStation(profile, 25))).toBeCloseTo(1.2, 3);
    const quick = paceProfile(soft({ marks: [{ ...at(20), length: 10, speed: 2 }] }), { length: 60 });
    expect(quick.speedAt(timeAtStation(quick, 20))).toBeCloseTo(2, 3);
  });

  test('by duration it lasts exactly that, pauses kept', () => {
    fc.assert(
      fc.property(anything, fc.double({ min: 1.3, max: 3, noNaN: true }), ({ length, pace }, slower) => {
        const quickest = paceProfile(pace, { length }).duration;
        const duration = quickest * slower;
        const profile = paceProfile({ ...pace, by: 'duration', duration }, { length });
        expect(Math.abs(profile.duration - duration)).toBeLessThan(1e-9 * duration);
        for (const { station, seconds, from } of profile.pauses!)
          if (station > 0.1 && station < length - 0.1 && profile.pauses!.length === 1)
            expect(profile.stationAt(from + seconds - 0.05) - station).toBeLessThan(0.01);
      }),
      { numRuns: 60 },
    );
  });

  test('a time too short for comfort is kept all the same', () => {
    const pace = soft({ by: 'duration', duration: 6, pauses: [{ ...at(12), seconds: 1 }] });
    expect(paceProfile(pace, { length: 40 }).duration).toBe(6);
  });

  test('every pin is met within half a frame, or the nearest possible time is said', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 80, noNaN: true }),
        fc.array(
          fc.record({
            part: fc.double({ min: 0.02, max: 0.98, noNaN: true }),
            pace: fc.double({ min: 0.15, max: 1.6, noNaN: true }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        (length, wishes) => {
          let [station, time] = [0, 2];
          const pins = [...wishes]
            .sort((a, b) => a.part - b.part)
            .filter(({ part }, i, all) => i === 0 || part - all[i - 1]!.part > 0.01)
            .map(({ part, pace }) => {
              time += (part * length - station) / pace + 1.5;
              station = part * length;
              return { ...at(station), time };
            });
          const profile = paceProfile(soft({ pins }), { length });
          for (const pin of profile.pins!) {
            const passes = timeAtStation(profile, pin.station);
            expect(Math.abs(passes - pin.reached)).toBeLessThan(1e-6);
            const off = Math.abs(pin.reached - pin.time);
            // What is not met is late: there is no acceleration for more, and later is always possible.
            if (off > HALF_FRAME) expect(pin.reached).toBeGreaterThan(pin.time);
          }
        },
      ),
      { numRuns: 60 },
    );
    const far = paceProfile(soft({ pins: [{ ...at(30), time: 4 }] }), { length: 40 });
    // From rest up to v and down to the 1.2 m/s that follow, at 0.5 m/s²: 2v² − 1.2² = 2 · 0.5 · 30, so v = 3.965 m/s, and
    // 3.965 / 0.5 + (3.965 − 1.2) / 0.5 = 13.46 s; a third of a second more for the softer start.
    expect(far.pins![0]!.reached).toBeGreaterThan(13.46);
    expect(far.pins![0]!.reached).toBeLessThan(13.46 + 0.34);
  });

  test('pins that can be met are met: "at the desk at 12 s"', () => {
    const pins = [
      { ...at(10), time: 12 },
      { ...at(24), time: 30 },
    ];
    const profile = paceProfile(soft({ pins, by: 'duration', duration: 45 }), { length: 40 });
    expect(profile.pins!.map(({ reached }) => reached)).toEqual([12, 30].map((t) => expect.closeTo(t, 2)));
    expect(profile.duration).toBe(45);
  });

  test('a pin at the end is when one arrives; who pauses there stands on', () => {
    const pins = [{ ...at(20), time: 30 }];
    const profile = paceProfile(soft({ pins, pauses: [{ ...at(20), seconds: 4 }] }), { length: 20 });
    expect(profile.pins![0]!.reached).toBeCloseTo(30, 3);
    expect(profile.duration).toBeCloseTo(34, 3);
    expect(profile.pauses![0]!.from).toBeCloseTo(30, 1);
  });

  test('corners slow down so that the way turns no faster than was wanted', () => {
    // A straight way, a quarter round of radius 1 m, a straight way.
    const bend = Math.PI / 2;
    const headingAt = (s: number) => Math.min(bend, Math.max(0, s - 10));
    const profile = paceProfile(soft({ turning: 30 }), { length: 21, headings: [headingAt] });
    for (let t = 0; t < profile.duration; t += 0.02) {
      const s = profile.stationAt(t);
      if (s > 10.3 && s < 10 + bend - 0.3) expect(profile.speedAt(t)).toBeLessThan((30 * Math.PI) / 180 + 0.01);
    }
    expect(profile.speedAt(timeAtStation(profile, 5))).toBeCloseTo(1.2, 2);
  });

  test('says what has lost its place', () => {
    const gone = { id: id(), anchor: { by: 'node' as const, node: id(), offset: 0 }, seconds: 2 };
    expect(paceProfile(soft({ pauses: [gone] }), { length: 9, stationOf: () => null }).lost).toBe(1);
  });
});

describe('named shapes', () => {
  const shaped = (change: Partial<Pace>) =>
    paceProfile(soft({ by: 'duration', duration: 10, ...change }), { length: 12 });

  // Flash & Hogan 1985: half of the way in half of the time; a speed that rises by it takes half of the way of a constant one.
  test('ease out of rest ends at twice the mean, ease to rest begins there', () => {
    expect(shaped({ shape: 'ease out of rest' }).speedAt(10)).toBeCloseTo(2.4, 9);
    expect(shaped({ shape: 'ease out of rest' }).speedAt(0)).toBe(0);
    expect(shaped({ shape: 'ease to rest' }).speedAt(0)).toBeCloseTo(2.4, 9);
    expect(shaped({ shape: 'ease to rest' }).stationAt(5)).toBeCloseTo(
      12 - shaped({ shape: 'ease out of rest' }).stationAt(5),
      9,
    );
  });

  test('carry has one speed at both ends, and is slowest where it is put', () => {
    const carry = shaped({ shape: 'carry', carry: { at: 0.3, slow: 0.25 } });
    expect(carry.speedAt(0)).toBeCloseTo(carry.speedAt(10), 9);
    expect(carry.speedAt(3)).toBeCloseTo(carry.speedAt(0) / 4, 9);
    // Mean = (1 + slow) / 2 of the ends.
    expect(carry.speedAt(0)).toBeCloseTo(1.2 / 0.625, 9);
    for (let t = 0; t <= 10; t += 0.1) expect(carry.speedAt(t)).toBeGreaterThanOrEqual(carry.speedAt(3) - 1e-9);
  });
});
