import { describe, expect, test } from '@jest/globals';
import { DataUtils } from 'three';
import { GrowingShares, writeDimmed } from './lamp-shares.ts';

/** A piece of so many vertices, of which every third is lit by the second of two lamps. */
const VERTICES = 5000;
const whole = (v: number) => (k: number) => 0.2 + ((v * 7 + k) % 50) / 100;
const isLit = (v: number) => v % 3 === 1;
const share = (v: number) => (lamp: number, k: number) => (isLit(v) && lamp === 1 ? 0.5 * whole(v)(k) : 0);

describe('what lamps give of a large piece', () => {
  const shares = new GrowingShares(2);
  for (let v = 0; v < VERTICES; v += 1) shares.add(v, whole(v), share(v));
  const made = shares.done()!;

  test('is known for every vertex that they light, and for no other', () => {
    expect([...made.vertices]).toEqual(Array.from({ length: VERTICES }, (_, v) => v).filter(isLit));
    expect(made.shares[0]).toBeNull();
  });

  test('is taken off of those alone, and given back', () => {
    const colors = new Uint16Array(4 * VERTICES);
    const untouched = DataUtils.toHalfFloat(0.125);
    colors.fill(untouched);
    for (const level of [0, 0.5, 1]) {
      writeDimmed(made, [1, level], colors);
      let off = 0;
      for (let v = 0; v < VERTICES; v += 1)
        for (let k = 0; k < 3; k += 1) {
          const is = DataUtils.fromHalfFloat(colors[4 * v + k]!);
          off = Math.max(off, Math.abs(is - (isLit(v) ? whole(v)(k) * (0.5 + 0.5 * level) : 0.125)));
        }
      expect(off).toBeLessThan(0.0005);
    }
  });
});
