import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { jumpsOf } from '../check/jump.ts';
import { paceSchema, type Pace, type Walk } from '../document/index.ts';
import { footingFrom, slab, walkThrough } from '../move/floor-scenes.fixture.ts';
import { CompiledWalk } from '../move/index.ts';
import { retimed, type StretchChange, type TimeStretch } from './retime.ts';

const open = footingFrom(slab(-60, 60, -60, 60, 0));
const base: Pace = { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' };
const walkWith = (pace: Pace): Walk => ({
  ...walkThrough([
    [-12, 0, 0],
    [0, 0, 3],
    [12, 0, 0],
  ]),
  pace,
});
const compile = (pace: Pace) => new CompiledWalk(walkWith(pace), open);
const goneOf = (move: CompiledWalk) => (time: number) => move.path.stationAt(time) / move.path.length;
const change = (pace: Pace, stretch: TimeStretch, what: StretchChange) => {
  const move = compile(pace);
  return retimed(pace, goneOf(move), move.duration, stretch, what);
};
/** Good to what 1001 instants of a move tell. */
const NEAR = 3;

const anyShape = fc.constantFrom<Pace['shape']>('soft', 'ease both', 'constant', 'carry');
const anyStretch = fc
  .tuple(fc.double({ min: 0, max: 15, noNaN: true }), fc.double({ min: 1, max: 6, noNaN: true }))
  .map(([from, long]) => ({ from, to: from + long }));

describe('a stretch of a move’s time', () => {
  test('made longer: it takes as long as it is to, from the same place to the same place; what follows comes later', () => {
    const before = compile(base);
    const gone = goneOf(before);
    for (const seconds of [2, 4, 9]) {
      const made = change(base, { from: 5, to: 9 }, { by: 'seconds', seconds })!;
      expect(paceSchema.safeParse(made.pace).success).toBe(true);
      expect(made.pace.duration).toBeCloseTo(before.duration + seconds - 4, NEAR);
      expect(made.stretch).toEqual({ from: expect.closeTo(5, NEAR), to: expect.closeTo(5 + seconds, NEAR) });
      const now = goneOf(compile(made.pace));
      for (const time of [0.5, 2, 5]) expect(now(time)).toBeCloseTo(gone(time), NEAR);
      for (const time of [9, 12, before.duration]) expect(now(time + seconds - 4)).toBeCloseTo(gone(time), NEAR);
    }
  });

  test('moved: in the same places a while later, and the whole takes as long', () => {
    const before = compile(base);
    const made = change(base, { from: 6, to: 9 }, { by: 'shift', seconds: 1.5 })!;
    expect(made.pace.duration).toBeCloseTo(before.duration, NEAR);
    expect(made.stretch.from).toBeCloseTo(7.5, NEAR);
    expect(made.stretch.to).toBeCloseTo(10.5, NEAR);
    const [was, now] = [goneOf(before), goneOf(compile(made.pace))];
    for (const time of [6, 7, 8, 9]) expect(now(time + 1.5)).toBeCloseTo(was(time), NEAR);
  });

  test('turned round: at the same places at both ends, with the speeds the other way; twice, it is what it was', () => {
    const slow: Pace = { ...base, shape: 'carry', carry: { at: 0.3, slow: 0.3 } };
    const before = compile(slow);
    const stretch = { from: 2, to: 14 };
    const made = change(slow, stretch, { by: 'turn' })!;
    const [was, now] = [goneOf(before), goneOf(compile(made.pace))];
    for (const time of [0, 2, 14, before.duration]) expect(now(time)).toBeCloseTo(was(time), NEAR);
    const speed = (of: (time: number) => number, time: number) => (of(time + 0.05) - of(time - 0.05)) / 0.1;
    for (const time of [4, 6, 8, 12]) expect(speed(now, 16 - time)).toBeCloseTo(speed(was, time), 2);
    const again = goneOf(compile(retimed(made.pace, now, made.pace.duration, stretch, { by: 'turn' })!.pace));
    for (const time of [3, 5, 9, 13]) expect(again(time)).toBeCloseTo(was(time), NEAR);
  });

  test('whatever is done, nothing goes backward, and what is stretched or moved jerks nowhere', () => {
    const what = fc.oneof(
      fc.record({ by: fc.constant('seconds' as const), seconds: fc.double({ min: 0.5, max: 12, noNaN: true }) }),
      fc.record({ by: fc.constant('shift' as const), seconds: fc.double({ min: -3, max: 3, noNaN: true }) }),
      fc.record({ by: fc.constant('turn' as const) }),
    );
    fc.assert(
      fc.property(anyShape, anyStretch, what, (shape, stretch, wanted) => {
        const pace = { ...base, shape };
        const made = change(pace, stretch, wanted);
        if (!made) return;
        expect(paceSchema.safeParse(made.pace).success).toBe(true);
        const { kept } = made.pace;
        for (let i = 1; i < kept!.length; i += 1) expect(kept![i]!).toBeGreaterThanOrEqual(kept![i - 1]!);
        if (wanted.by !== 'turn') expect(jumpsOf(compile(made.pace)).filter(({ rule }) => rule === 'jerk')).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  test('what cannot be is nothing: no time, a tempo that nobody sees, nothing before it that gives way', () => {
    expect(change(base, { from: 5, to: 5 }, { by: 'seconds', seconds: 3 })).toBeNull();
    expect(change(base, { from: 5, to: 9 }, { by: 'seconds', seconds: 400 })).toBeNull();
    expect(change(base, { from: 5, to: 9 }, { by: 'seconds', seconds: 0.01 })).toBeNull();
    expect(change(base, { from: 0, to: 4 }, { by: 'shift', seconds: 1 })).toBeNull();
    expect(change(base, { from: 2, to: 4 }, { by: 'shift', seconds: -2.5 })).toBeNull();
  });
});
