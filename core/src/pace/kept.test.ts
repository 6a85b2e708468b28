import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { paceSchema, type Pace } from '../document/index.ts';
import { otherPace, paceProfile } from './index.ts';

const shapes = ['constant', 'ease both', 'ease out of rest', 'ease to rest', 'carry'] as const;
const paceOf = (change: Partial<Pace>): Pace => ({ by: 'duration', speed: 1, duration: 10, shape: 'soft', ...change });
/** A pace as it is played, at even times. */
const keptOf = (pace: Pace, length: number, instants: number) => {
  const profile = paceProfile(pace, { length });
  return Array.from({ length: instants + 1 }, (_, i) =>
    i === instants ? 1 : profile.stationAt((profile.duration * i) / instants) / length,
  );
};

test('a pace that is kept as it was is that pace: place and speed at every time', () => {
  for (const shape of shapes) {
    const [before, after] = [
      paceProfile(paceOf({ shape }), { length: 20 }),
      paceProfile(paceOf({ kept: keptOf(paceOf({ shape }), 20, 300) }), { length: 20 }),
    ];
    expect(after.duration).toBe(before.duration);
    expect(after.cruise).toBeCloseTo(before.cruise, 2);
    for (let time = 0; time <= 10; time += 0.037) {
      expect(after.stationAt(time)).toBeCloseTo(before.stationAt(time), 4);
      expect(after.speedAt(time)).toBeCloseTo(before.speedAt(time), 2);
    }
  }
});

test('it never goes back, covers the way, stands where it stood, and its speed is how fast it goes (200 random ones)', () => {
  const rises = fc.array(fc.oneof(fc.constant(0), fc.double({ min: 0, max: 1, noNaN: true })), {
    minLength: 2,
    maxLength: 40,
  });
  fc.assert(
    fc.property(rises, fc.double({ min: 0.5, max: 100, noNaN: true }), (steps, duration) => {
      const whole = steps.reduce((sum, step) => sum + step, 0);
      fc.pre(whole > 0.01);
      let gone = 0;
      const kept = [0, ...steps.map((step) => Math.min(1, (gone += step) / whole))];
      kept[kept.length - 1] = 1;
      const pace = paceOf({ duration, kept });
      expect(paceSchema.safeParse(pace).success).toBe(true);
      const profile = paceProfile(pace, { length: 7 });
      kept.forEach((part, i) => expect(profile.stationAt((duration * i) / (kept.length - 1))).toBeCloseTo(7 * part, 9));
      const step = duration / 1000;
      let [most, before, back] = [0, 0, 0];
      for (let i = 0; i < 1000; i += 1) {
        const station = profile.stationAt((i + 1) * step);
        back = Math.max(back, before - station);
        most = Math.max(most, profile.speedAt((i + 0.5) * step));
        before = station;
      }
      expect(back).toBeLessThan(1e-12);
      expect(most).toBeLessThanOrEqual(profile.cruise * (1 + 1e-9));
    }),
    { numRuns: 200 },
  );
});

test('by speed its highest speed is the one asked for, and the time follows', () => {
  const kept = keptOf(paceOf({ shape: 'ease both' }), 20, 200);
  const profile = paceProfile(paceOf({ by: 'speed', speed: 2, kept }), { length: 20 });
  expect(profile.cruise).toBeCloseTo(2, 6);
  expect(profile.duration).toBeCloseTo((20 * 1.875) / 2, 2);
});

test('what waits while it is kept counts as soon as something else is said', () => {
  const pauses = [
    { id: '00000000-0000-4000-8000-000000000001', anchor: { by: 'station' as const, station: 5 }, seconds: 4 },
  ];
  const pace = paceOf({ shape: 'constant', pauses, kept: [0, 0.5, 1] });
  const way = { length: 20, stationOf: () => 5 };
  expect(paceProfile(pace, way).pauses).toBeUndefined();
  expect(paceProfile(otherPace(pace, { shape: 'soft' }), way).pauses).toHaveLength(1);
  expect(otherPace(pace, { shape: 'soft' })).not.toHaveProperty('kept');
});

test('a pace that goes back, or does not go all the way, is refused', () => {
  for (const kept of [[0, 0.6, 0.5, 1], [0, 0.5], [0.1, 1], [1]])
    expect(paceSchema.safeParse(paceOf({ kept })).success).toBe(false);
});
