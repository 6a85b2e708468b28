import { describe, expect, test } from '@jest/globals';
import { encodeSrgb } from '@eskovan/core/colour';
import { displayByte, toDisplay } from './tone.ts';

describe('tone', () => {
  // Source: IEC 61966-2-1, the sRGB encoding; 18 % grey is 46 % of the signal, the linear toe ends at 0.0031308.
  test.each([
    [0, 0],
    [0.0031308, 0.04045],
    [0.18, 0.4613],
    [0.5, 0.7354],
    [1, 1],
  ])('sRGB encodes %f as %f', (linear, encoded) => expect(encodeSrgb(linear)).toBeCloseTo(encoded, 3));

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

  test('the table is the curve', () => {
    for (let radiance = 0; radiance < 8; radiance += 0.013)
      expect(Math.abs(displayByte(radiance) - 255 * toDisplay(radiance))).toBeLessThanOrEqual(1);
    expect(displayByte(-1)).toBe(0);
    expect(displayByte(100)).toBe(255);
  });
});
