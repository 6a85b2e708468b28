import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS, type Walk, type WayAnchor } from '../document/index.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk, reversedWalk } from './index.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const nowhere = new Footing(new Float32Array(0));

const anchor: fc.Arbitrary<WayAnchor> = fc.oneof(
  fc.record({ by: fc.constant('station' as const), station: fc.double({ min: 0.5, max: 9.5, noNaN: true }) }),
  fc.record({
    by: fc.constant('node' as const),
    node: fc.constantFrom(id(1), id(2)),
    offset: fc.double({ min: -1, max: 1, noNaN: true }),
  }),
);

const anyWalk: fc.Arbitrary<Walk> = fc
  .record({
    closed: fc.boolean(),
    shape: fc.constantFrom<Walk['pace']['shape']>('soft', 'constant', 'ease out of rest', 'ease to rest', 'carry'),
    pause: anchor,
    mark: anchor,
    from: anchor,
    to: anchor,
    key: anchor,
    slowest: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
  })
  .map(({ closed, shape, pause, mark, from, to, key, slowest }) => ({
    kind: 'walk',
    path: {
      nodes: [
        [0, 0],
        [4, 1],
        [6, -3],
        [1, -6],
      ].map(([x, z], n) => ({ id: id(n), x: x!, y: 0, z: z!, kind: 'smooth', radius: 0.5 })),
      closed,
    },
    eyeHeight: 1.6,
    pace: {
      by: 'speed',
      speed: 1.2,
      duration: 10,
      shape,
      carry: { at: slowest, slow: 0.5 },
      pauses: [{ id: id(50), anchor: pause, seconds: 2 }],
      marks: [{ id: id(51), anchor: mark, length: 1, speed: 0.6 }],
    },
    gaze: { kind: 'ahead', distance: 2 },
    gazeSpans: [{ id: id(52), from, to, gaze: { kind: 'bearing', pan: 1, tilt: 0 }, handOver: 1 }],
    lens: DEFAULT_LENS,
    tracks: { lift: [{ id: id(53), anchor: key, value: 1, ease: 'smooth' }] },
  }));

/** Numbers to the last digits but one. */
const near = (value: unknown): unknown =>
  typeof value === 'number'
    ? expect.closeTo(value, 9)
    : Array.isArray(value)
      ? value.map(near)
      : value && typeof value === 'object'
        ? Object.fromEntries(Object.entries(value).map(([name, member]) => [name, near(member)]))
        : value;

describe('a walk the other way', () => {
  test('reversed twice it is what it was', () => {
    fc.assert(fc.property(anyWalk, (walk) => expect(reversedWalk(reversedWalk(walk))).toEqual(near(walk))));
  });

  test('it stands still in the same places, and takes as long', () => {
    fc.assert(
      fc.property(anyWalk, (walk) => {
        const [there, back] = [new CompiledWalk(walk, nowhere), new CompiledWalk(reversedWalk(walk), nowhere)];
        const standsAt = (move: CompiledWalk) => {
          const { from, seconds } = move.pace.pauses![0]!;
          const [x, , z] = move.sampleAt(from + seconds / 2).position;
          return [x, z];
        };
        const [a, b] = [standsAt(there), standsAt(back)];
        expect(Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!)).toBeLessThan(1e-4);
        expect(Math.abs(back.duration - there.duration)).toBeLessThan(0.02 * there.duration);
      }),
      { numRuns: 60 },
    );
  });
});
