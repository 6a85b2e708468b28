import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Anchor, Key } from '../document/index.ts';
import {
  insertKey,
  mergeKeys,
  moveKey,
  raiseAbout,
  removeKey,
  rippleKeys,
  splitKeys,
  stretchKeys,
  TrackCurve,
} from './index.ts';

let serial = 0;
const key = (time: number, value: number, ease: Key['ease'] = 'smooth'): Key => ({
  id: `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`,
  anchor: { by: 'time', time },
  value,
  ease,
});
const anchors = { duration: 10, timeAt: (station: number) => station / 2, stationOf: () => null };
const curve = (keys: Key[], loops = false) => new TrackCurve(keys, anchors, loops);
const timesOf = (keys: readonly Key[]) => keys.map(({ anchor }) => (anchor as Extract<Anchor, { by: 'time' }>).time);
const anyKeys = fc
  .uniqueArray(fc.integer({ min: 0, max: 99 }), { minLength: 1, maxLength: 12 })
  .chain((times) =>
    fc.tuple(
      ...times.map((t) =>
        fc
          .tuple(fc.integer({ min: -50, max: 50 }), fc.constantFrom<Key['ease']>('smooth', 'straight', 'hold'))
          .map(([value, ease]) => key(t / 10, value, ease)),
      ),
    ),
  );

describe('a curve through keys', () => {
  test('passes through every key and never leaves what the two keys beside it say', () => {
    fc.assert(
      fc.property(anyKeys, fc.double({ min: 0, max: 10, noNaN: true }), fc.boolean(), (keys, time, loops) => {
        const made = curve(keys, loops);
        for (const { time: at, value } of made.keys) expect(made.at(at)).toBeCloseTo(value, 9);
        const before = made.keys.findLast((one) => one.time <= time) ?? (loops ? made.keys.at(-1)! : made.keys[0]!);
        const after = made.keys.find((one) => one.time >= time) ?? (loops ? made.keys[0]! : made.keys.at(-1)!);
        expect(made.at(time)).toBeGreaterThanOrEqual(Math.min(before.value, after.value) - 1e-9);
        expect(made.at(time)).toBeLessThanOrEqual(Math.max(before.value, after.value) + 1e-9);
      }),
    );
  });

  // By hand: between level ends the cubic is 3t² − 2t³, so a quarter of the way it has gone 5/32.
  test('50 to 100 mm: a quarter of the way 57.8125, half of it 75', () => {
    const zoom = curve([key(0, 50), key(10, 100)]);
    expect(zoom.at(2.5)).toBeCloseTo(57.8125, 9);
    expect(zoom.at(5)).toBeCloseTo(75, 9);
    expect(curve([key(0, 50, 'straight'), key(10, 100)]).at(2.5)).toBeCloseTo(62.5, 9);
    expect(curve([key(0, 50, 'hold'), key(10, 100)]).at(9.99)).toBe(50);
  });

  test('round a loop the end is the beginning, without a corner', () => {
    const zoom = curve([key(1, 50), key(4, 100), key(8, 70)], true);
    expect(zoom.at(10)).toBeCloseTo(zoom.at(0), 9);
    const slope = (t: number) => (zoom.at(t + 1e-4) - zoom.at(t)) / 1e-4;
    expect(slope(9.9999)).toBeCloseTo(slope(0), 2);
  });

  test('keys hold on to the path, and say when they have lost it', () => {
    const at = (anchor: Anchor): Key => ({ ...key(0, 30), anchor });
    const node = '00000000-0000-4000-8000-0000000000aa';
    const keys = [at({ by: 'station', station: 6 }), at({ by: 'node', node, offset: 2 })];
    const found = new TrackCurve(keys, { ...anchors, stationOf: (id) => (id === node ? 10 : null) }, false);
    expect(found.keys.map(({ time }) => time)).toEqual([3, 6]);
    expect(found.lost).toBe(0);
    expect(curve(keys).lost).toBe(1);
    expect(new TrackCurve(keys, { duration: 10, timeAt: null, stationOf: null }, false).lost).toBe(2);
    expect(curve([]).at(3)).toBeNaN();
  });
});

describe('editing keys', () => {
  test('insert, move, remove', () => {
    const keys = insertKey([key(1, 10)], key(4, 20));
    expect(timesOf(keys)).toEqual([1, 4]);
    // A key at the same instant takes the value.
    expect(insertKey(keys, key(4, 30)).map(({ value }) => value)).toEqual([10, 30]);
    expect(moveKey(keys, keys[1]!.id, 2, 15)[1]).toMatchObject({ anchor: { by: 'time', time: 2 }, value: 15 });
    expect(removeKey(keys, keys[0]!.id)).toEqual([keys[1]]);
  });

  test('stretch, ripple, split and merge', () => {
    const keys = [key(1, 1), key(3, 3), key(8, 8)];
    expect(timesOf(stretchKeys(keys, 1, 5, 2))).toEqual([1, 5, 12]);
    expect(timesOf(rippleKeys(keys, 3, 2))).toEqual([1, 5, 10]);
    const [head, tail] = splitKeys(keys, 3);
    expect([timesOf(head), timesOf(tail)]).toEqual([[1], [0, 5]]);
    expect(timesOf(mergeKeys(head, tail, 3))).toEqual([1, 3, 8]);
  });

  test('stretching back undoes stretching', () => {
    fc.assert(
      fc.property(anyKeys, fc.double({ min: 0.2, max: 5, noNaN: true }), (keys, factor) => {
        const there = stretchKeys(keys, 2, 6, factor);
        const back = stretchKeys(there, 2, 2 + 4 * factor, 1 / factor);
        timesOf(back).forEach((time, i) => expect(time).toBeCloseTo(timesOf(keys)[i]!, 9));
      }),
    );
  });
});

describe('raising a track about an instant', () => {
  const ids = ['a', 'b', 'c'] as const;

  test('lifts there, and leaves what is farther away as it was', () => {
    const flat = () => 0;
    const raised = curve(raiseAbout([], ids, 5, 0.4, [3.5, 6.5], flat));
    expect(raised.at(5)).toBe(0.4);
    for (const time of [0, 2, 3.5, 6.5, 9]) expect(raised.at(time)).toBe(0);
  });

  test('pulled again it replaces itself, and a key in between is where it ends', () => {
    fc.assert(
      fc.property(
        anyKeys,
        fc.integer({ min: 1, max: 9 }),
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 5 }),
        (keys, time, pulls) => {
          const before = curve(keys);
          const ends = [time - 1, time + 1] as const;
          let now = keys;
          for (const value of pulls) now = raiseAbout(now, ids, time, value, ends, (at) => before.at(at));
          const others = timesOf(keys).filter((at) => Math.abs(at - time) > 1e-9);
          expect(now.length).toBeLessThanOrEqual(keys.length + 3);
          expect(new Set(now.map(({ id }) => id)).size).toBe(now.length);
          if (others.length === keys.length) expect(curve(now).at(time)).toBeCloseTo(pulls.at(-1)!, 9);
          for (const key of keys) expect(now).toContain(key);
        },
      ),
    );
  });
});
