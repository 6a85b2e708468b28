import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Anchor, Key, Tracks, Vec3 } from '../document/index.ts';
import { SiteMotion } from '../action/index.ts';
import { middle, orientationOf } from '../geometry/index.ts';
import { footingFrom, slab, walkThrough } from '../move/floor-scenes.fixture.ts';
import { glideOf, MODEL, newId, orbitOf, poseOf, siteOf, travelOf } from '../move/kinds.fixture.ts';
import { compileMove, SAMPLE_STRIDE } from '../move/index.ts';
import { jumpsOf } from './jump.ts';

const open = footingFrom(slab(-60, 60, -60, 60, 0));
const walk = walkThrough([
  [-6, 0, 0],
  [6, 0, 0],
]);
const key = (time: number, value: number, ease: Key['ease'] = 'hold'): Key => ({
  id: newId(),
  anchor: { by: 'time', time } as Anchor,
  value,
  ease,
});
const withTracks = (tracks: Tracks) => compileMove({ ...walk, tracks }, siteOf({ footing: open }))!;
const rules = (found: ReturnType<typeof jumpsOf>) => found.map(({ rule }) => rule);

/** A camera at a place and turned by an angle, radians, as functions of the time. */
const made = (duration: number, placeAt: (time: number) => Vec3, panAt: (time: number) => number) => ({
  duration,
  fill: (times: ArrayLike<number>, out: Float64Array) => {
    for (let i = 0; i < times.length; i += 1) {
      const time = Math.min(duration, Math.max(0, times[i]!));
      const numbers = [
        ...placeAt(time),
        ...orientationOf({ pan: panAt(time), tilt: 0, roll: 0 }),
        24,
        Infinity,
        Infinity,
        0,
      ];
      out.set(numbers, i * SAMPLE_STRIDE);
    }
  },
});

describe('jumps', () => {
  test('keys that hold jump where the next one begins: in place, direction and lens', () => {
    const [place] = jumpsOf(withTracks({ truck: [key(0, 0), key(4.321, 0.5)] }));
    expect(place).toEqual({ rule: 'jump', at: expect.closeTo(4.321, 3), size: expect.closeTo(0.5, 3) });
    const [turn] = jumpsOf(withTracks({ pan: [key(0, 0), key(5, 12)] }));
    expect(turn).toEqual({ rule: 'turn jump', at: expect.closeTo(5, 3), size: expect.closeTo(12, 2) });
    const [lens] = jumpsOf(withTracks({ focalLength: [key(0, 24), key(7, 48)] }));
    expect(lens).toEqual({ rule: 'lens jump', at: expect.closeTo(7, 3), size: expect.closeTo(Math.log(2), 3) });
    // The same keys, soft.
    const soft = (values: [number, number], time: number) => [
      key(0, values[0], 'smooth'),
      key(time, values[1], 'smooth'),
    ];
    expect(
      jumpsOf(withTracks({ truck: soft([0, 0.5], 4), focalLength: soft([24, 48], 7), pan: soft([0, 12], 5) })),
    ).toEqual([]);
  });

  test('planted at any time and of any size, each is found, at its time and with its size', () => {
    const at = fc.double({ min: 0.4, max: 5.6, noNaN: true });
    fc.assert(
      fc.property(
        at,
        fc.double({ min: 0.02, max: 3, noNaN: true }),
        fc.double({ min: 2, max: 90, noNaN: true }),
        (when, far, angle) => {
          const going = (time: number): Vec3 => [1.2 * time, 1.6, 0.2 * Math.sin(time)];
          const moved = made(
            6,
            (time) => going(time).map((v, k) => v + (k === 0 && time > when ? far : 0)) as Vec3,
            () => 0,
          );
          expect(jumpsOf(moved)).toEqual([{ rule: 'jump', at: expect.closeTo(when, 3), size: expect.closeTo(far, 2) }]);
          const turned = made(6, going, (time) => (time > when ? (angle * Math.PI) / 180 : 0));
          expect(jumpsOf(turned)).toEqual([
            { rule: 'turn jump', at: expect.closeTo(when, 3), size: expect.closeTo(angle, 1) },
          ]);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('jerks', () => {
  test('a speed that changes at once; one that changes within a tenth of a second does not', () => {
    const when = 2.345;
    const begins = made(
      5,
      (time) => [Math.max(0, time - when) * 1.5, 0, 0],
      () => 0,
    );
    expect(jumpsOf(begins)).toEqual([{ rule: 'jerk', at: expect.closeTo(when, 2), size: expect.closeTo(1.5, 1) }]);
    const soft = (time: number) =>
      time < when ? 0 : time < when + 0.1 ? (time - when) ** 2 * 7.5 : 0.075 + (time - when - 0.1) * 1.5;
    expect(
      jumpsOf(
        made(
          5,
          (time) => [soft(time), 0, 0],
          () => 0,
        ),
      ),
    ).toEqual([]);
    const turns = made(
      5,
      (time) => [time, 0, 0],
      (time) => Math.max(0, time - when) * 0.7,
    );
    expect(jumpsOf(turns)).toEqual([
      { rule: 'turn jerk', at: expect.closeTo(when, 2), size: expect.closeTo((0.7 * 180) / Math.PI, 0) },
    ]);
  });

  test('an even swing to and fro turns back at once; an eased one does not', () => {
    const swing = (shape: 'constant' | 'ease both') =>
      rules(jumpsOf(compileMove(orbitOf({ sweep: 1.5, swings: true, shape }), siteOf())!));
    expect(swing('constant')).toContain('jerk');
    expect(swing('ease both')).toEqual([]);
  });

  test('who rides on what starts at once starts at once', () => {
    const car = { model: MODEL, name: 'Car', bounds: { min: [-1, 0, -2] as Vec3, max: [1, 1, 2] as Vec3 } };
    const ride = (shape: 'constant' | 'ease both') => {
      const rail: Vec3[] = [
        [0, 0.5, 0],
        [0, 0.5, -30],
      ];
      const motion = new SiteMotion({ parts: [car], joints: [], movements: [] }, [
        {
          kind: 'along',
          model: MODEL,
          part: 'Car',
          path: glideOf(rail).path,
          faces: true,
          start: 3,
          seconds: 10,
          shape,
          repeat: 'once',
        },
      ]);
      const { lens } = walk;
      const body = {
        kind: 'ride' as const,
        carrier: { model: MODEL, name: 'Car', centre: middle(car.bounds) },
        seat: [0, 1.2, 0] as Vec3,
        facing: orientationOf({ pan: 0, tilt: 0, roll: 0 }),
        softness: 0,
        horizon: 'with it' as const,
        duration: 15,
        gaze: { kind: 'kept' as const },
        lens,
      };
      return jumpsOf(compileMove(body, siteOf({ parts: [car], motion }))!);
    };
    expect(ride('constant').map(({ rule, at }) => [rule, Math.round(at)])).toEqual([
      ['jerk', 3],
      ['jerk', 13],
    ]);
    expect(ride('ease both')).toEqual([]);
  });

  test('none is invented: walks, orbits, travels and glides at random', () => {
    const metre = fc.double({ min: -20, max: 20, noNaN: true });
    const places = fc.array(fc.tuple(metre, metre), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(
        places,
        fc.constantFrom<'soft' | 'ease both' | 'constant'>('soft', 'ease both', 'constant'),
        (all, shape) => {
          const far = all.filter(([x, z], i) => i === 0 || Math.hypot(x - all[i - 1]![0], z - all[i - 1]![1]) > 1.5);
          // Who turns back in one place does so at once.
          const back = far.some(([x, z], i) => {
            const [a, b] = [far[i - 1], far[i + 1]];
            if (!a || !b) return false;
            const [ax, az, bx, bz] = [x - a[0], z - a[1], b[0] - x, b[1] - z];
            return (ax * bx + az * bz) / (Math.hypot(ax, az) * Math.hypot(bx, bz)) < -0.5;
          });
          if (far.length < 2 || back) return;
          const { path } = glideOf(far.map(([x, z]) => [x, 0, z]));
          const found = [
            compileMove({ ...walk, path, pace: { ...walk.pace, shape } }, siteOf({ footing: open })),
            compileMove(
              glideOf(
                far.map(([x, z], i) => [x, 2 + i, z]),
                { pace: { by: 'speed', speed: 4, duration: 10, shape } },
              ),
              siteOf(),
            ),
            compileMove(travelOf(far.map(([x, z], i) => poseOf(i + 1, 4 * i, [x, 2, z], [i, 0, 0]))), siteOf()),
            compileMove(orbitOf({ shape }), siteOf()),
          ];
          for (const move of found) expect(jumpsOf(move!)).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
  });
});
