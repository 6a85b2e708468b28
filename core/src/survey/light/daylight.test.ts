import { describe, expect, test } from '@jest/globals';
import { daylight } from './index.ts';
import { clearSky } from './site-light.ts';

const at = (degrees: number) => {
  const a = (degrees * Math.PI) / 180;
  return daylight(clearSky([Math.cos(a), Math.sin(a), 0]));
};
const bright = (c: readonly number[]) => c[0]! + c[1]! + c[2]!;

describe('daylight', () => {
  test('the sun is redder the lower it stands, and gone below the horizon', () => {
    const redness = (degrees: number) => at(degrees).sun[0] / at(degrees).sun[2];
    expect(redness(6)).toBeGreaterThan(redness(20));
    expect(redness(20)).toBeGreaterThan(redness(60));
    expect(bright(at(-3).sun)).toBe(0);
  });

  test('the sky dims through dusk without a step', () => {
    let before = bright(at(-20).zenith);
    for (let degrees = -19.5; degrees <= 90; degrees += 0.5) {
      const now = bright(at(degrees).zenith);
      expect(now).toBeGreaterThanOrEqual(before - 1e-9);
      expect(now - before).toBeLessThan(0.12);
      before = now;
    }
  });
});
