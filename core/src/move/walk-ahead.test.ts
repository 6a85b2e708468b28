import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS, type Walk } from '../document/index.ts';
import { anglesOf, nearestTurn, toDegrees } from '../geometry/index.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk } from './index.ts';
import { turningTime } from './walk-ahead.ts';

const nowhere = new Footing(new Float32Array(0));
const id = (i: number) => `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`;

/** Through places, standing at one of them for some seconds. */
const walk = (places: readonly (readonly [number, number])[], at: number, seconds: number, closed = false): Walk => ({
  kind: 'walk',
  path: { nodes: places.map(([x, z], i) => ({ id: id(i), x, y: 0, z, kind: 'corner', radius: 0.05 })), closed },
  eyeHeight: 1.6,
  pace: {
    by: 'speed',
    speed: 1.2,
    duration: 10,
    shape: 'soft',
    turning: 45,
    ...(seconds > 0 && { pauses: [{ id: id(99), anchor: { by: 'node', node: id(at), offset: 0 }, seconds }] }),
  },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
});

/** Fastest turn of the eye between two times, degrees a second, at 240 Hz. */
function fastest(move: CompiledWalk, from = 0, to = move.duration): number {
  const pan = (time: number) => anglesOf(move.sampleAt(time).orientation).pan;
  let most = 0;
  for (let time = from; time + 1 / 240 <= to; time += 1 / 240)
    most = Math.max(most, Math.abs(nearestTurn(pan(time + 1 / 240) - pan(time))) * 240);
  return toDegrees(most);
}

const there = [
  [0, 0],
  [0, -8],
] as const;
const stay = (move: CompiledWalk) => move.pace.pauses![0]!;

describe('turning while standing', () => {
  test('one arrives looking where the way led, and leaves looking where it goes on', () => {
    const move = new CompiledWalk(walk([...there, [8, -8]], 1, 5), nowhere);
    const { from, seconds } = stay(move);
    const pan = (time: number) => toDegrees(anglesOf(move.sampleAt(time).orientation).pan);
    // Its corner is rounded: it has been turned a little already.
    expect(Math.abs(pan(from))).toBeLessThan(6);
    expect(Math.abs(pan(from + seconds) + 90)).toBeLessThan(6);
    // There is time to look first where one has come.
    expect(pan(from + 0.5)).toBeCloseTo(pan(from), 1);
    expect(fastest(move)).toBeLessThan(30.5);
  });

  test('without the stay the same way turns faster, so that the bound means something', () => {
    expect(fastest(new CompiledWalk(walk([...there, [8, -8]], 1, 0), nowhere))).toBeGreaterThan(40);
  });

  test('going back the way one came: half a turn on the spot, as slow as the stay allows', () => {
    for (const [seconds, most] of [
      [9, 30.5],
      [6.5, 31],
      [4, 42],
    ] as const) {
      const move = new CompiledWalk(walk([...there, [0.4, 0]], 1, seconds), nowhere);
      expect(fastest(move)).toBeLessThan(most);
    }
  });

  test('all the way round it goes on without a jump, and is the same again after a round', () => {
    const places = [...there, [8, -8], [8, 0]] as const;
    const move = new CompiledWalk(walk(places, 2, 5, true), nowhere);
    expect(move.loops).toBe(true);
    const [first, again] = [move.sampleAt(0.1).orientation, move.sampleAt(move.duration + 0.1).orientation];
    first.forEach((value, k) => expect(again[k]).toBeCloseTo(value, 9));
    // The corner at its beginning too is looked along.
    expect(fastest(move, stay(move).from - 0.5, stay(move).from + 5)).toBeLessThan(30.5);
    expect(fastest(move, move.duration - 3) / fastest(move, 0, 3)).toBeLessThan(60);
  });

  test('any stays on any way: the eye is continuous in direction and in turn rate', () => {
    const step = 1 / 240;
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: 1.5, max: 6, noNaN: true }), fc.double({ min: -1.5, max: 1.5, noNaN: true })),
          {
            minLength: 2,
            maxLength: 5,
          },
        ),
        fc.nat(4),
        fc.double({ min: 2, max: 8, noNaN: true }),
        (legs, at, seconds) => {
          let [x, z, heading] = [0, 0, 0];
          const places: [number, number][] = [[0, 0]];
          for (const [length, turn] of legs) {
            heading += turn;
            places.push([(x += length * Math.sin(heading)), (z -= length * Math.cos(heading))]);
          }
          const move = new CompiledWalk(walk(places, at % places.length, seconds), nowhere);
          const { from } = stay(move);
          const pan = (time: number) => anglesOf(move.sampleAt(time).orientation).pan;
          let before = 0;
          for (
            let time = Math.max(0, from - 1);
            time < Math.min(from + seconds + 1, move.duration - step);
            time += step
          ) {
            const rate = nearestTurn(pan(time + step) - pan(time)) / step;
            if (time > from - 1 + step && time > step) expect(Math.abs(rate - before)).toBeLessThan(0.06);
            before = rate;
          }
        },
      ),
      { numRuns: 15 },
    );
  });

  test('the time a turn takes: trapezoid of speed, so that the area under it is the angle', () => {
    // ω(t) rises over 0.3 T, is held for 0.4 T and falls over 0.3 T: the area is 0.7 ω T.
    expect(turningTime(Math.PI, 1)).toBeCloseTo(Math.PI / 0.7, 12);
  });
});
