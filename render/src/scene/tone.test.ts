import { describe, expect, test } from '@jest/globals';
import { encodeSrgb } from '@eskovan/core/colour';
import { compress, toDisplay } from './tone.ts';

describe('tone', () => {
  // Source: IEC 61966-2-1, the sRGB encoding; 18 % grey is 46 % of the signal, the linear toe ends at 0.0031308.
  test.each([
    [0, 0],
    [0.0031308, 0.04045],
    [0.18, 0.4613],
    [0.5, 0.7354],
    [1, 1],
  ])('sRGB encodes %f as %f', (linear, encoded) => expect(encodeSrgb(linear)).toBeCloseTo(encoded, 3));

  test('the shader’s square roots are the sRGB curve to a third of a byte', () => {
    for (let c = 0.0005; c <= 1; c += 0.0005) {
      const [a, b, d] = [c ** (1 / 2), c ** (1 / 4), c ** (1 / 8)];
      const roots = 0.662002687 * a + 0.68412206 * b - 0.323583601 * d - 0.022541147 * c;
      expect(255 * Math.abs(Math.min(1, Math.max(0, roots)) - encodeSrgb(c))).toBeLessThan(c < 0.003 ? 4 : 0.4);
    }
  });

  test('rises with the light, from black to white, without a step', () => {
    let before = -1;
    for (let radiance = 0; radiance <= 8; radiance += 0.01) {
      const value = toDisplay(radiance);
      expect(value).toBeGreaterThanOrEqual(before);
      expect(value).toBeLessThanOrEqual(1);
      before = value;
    }
    expect(toDisplay(0)).toBe(0);
    expect(toDisplay(8)).toBeCloseTo(1, 9);
  });

  test('has a toe, a straight middle, and a shoulder without a corner', () => {
    // By hand: 0.1 · (0.6 + 0.4 / 2) = 0.08; the middle is as it is; (0.98 − 0.44) / 0.56 = 0.9643 on the shoulder.
    expect(compress(0.1)).toBeCloseTo(0.08, 9);
    expect(compress(0.3)).toBe(0.3);
    expect(compress(0.98)).toBeCloseTo(0.44 + (0.56 * 0.9643 * (1 + 0.9643 / 182.25)) / 1.9643, 3);
    const slope = (x: number) => (compress(x + 1e-5) - compress(x - 1e-5)) / 2e-5;
    expect(slope(0.44 - 2e-5)).toBeCloseTo(slope(0.44 + 2e-5), 2);
  });
});
