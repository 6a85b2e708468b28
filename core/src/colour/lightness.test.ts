import { describe, expect, test } from '@jest/globals';
import { Color } from 'three';
import { lightness, meanLightness } from './index.ts';

describe('lightness', () => {
  test('is that of CIE 1976 (published pairs: black, white, the 18.42 % grey of L* 50, the knee at 8)', () => {
    expect(lightness(0)).toBe(0);
    expect(lightness(1)).toBeCloseTo(100, 9);
    expect(lightness(0.184187)).toBeCloseTo(50, 3);
    expect(lightness(0.008856)).toBeCloseTo(8, 2);
  });

  test('of a picture is that of its mean luminance (linear values of three.js)', () => {
    const colours = ['#ff0000', '#00ff00', '#0000ff', '#777777', '#fbfaf6', '#17212b'];
    const pixels = new Uint8ClampedArray(
      colours.flatMap((hex) => [...[1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)), 255]),
    );
    const luminances = colours.map((hex) => {
      const { r, g, b } = new Color(hex);
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    });
    const mean = luminances.reduce((sum, one) => sum + one, 0) / colours.length;
    expect(meanLightness(pixels)).toBeCloseTo(lightness(mean), 6);
    expect(meanLightness(pixels.slice(12, 16))).toBeCloseTo(50.03, 1);
    expect(meanLightness(new Uint8ClampedArray(0))).toBe(0);
  });
});
