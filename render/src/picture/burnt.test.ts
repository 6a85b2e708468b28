import { describe, expect, test } from '@jest/globals';
import { toDisplay } from '../scene/tone.ts';
import { BURNS_FROM, burntPart, stopsToDraw } from './burnt.ts';

/** A picture of one grey, with some pixels in another colour. */
function picture(width: number, height: number, colours: Readonly<Record<number, [number, number, number]>>) {
  const pixels = new Uint8Array(4 * width * height).fill(120);
  for (const [at, colour] of Object.entries(colours)) pixels.set(colour, 4 * Number(at));
  return pixels;
}

describe('what burns out', () => {
  test('is as light as white, also where it is cream; the sky still has its blue', () => {
    const pixels = picture(10, 2, { 0: [255, 255, 255], 1: [254, 245, 240], 2: [190, 215, 255], 3: [244, 244, 244] });
    expect(burntPart(pixels, { width: 10, height: 2 })).toBe(2 / 20);
  });

  test('counts within the frame alone', () => {
    const white: [number, number, number] = [255, 255, 255];
    // A corner, which is outside the frame, and the first pixel of the frame.
    const pixels = picture(6, 4, { 0: white, 7: white });
    expect(burntPart(pixels, { width: 6, height: 4, frame: { width: 4, height: 2 } })).toBe(1 / 8);
  });

  test('by the tone curve of all pictures', () => {
    expect(toDisplay(BURNS_FROM)).toBeCloseTo(245 / 255, 6);
    expect(toDisplay(0.99 * BURNS_FROM)).toBeLessThan(245 / 255);
  });

  test('is drawn again in a picture that is so many stops darker, and in none that is lighter', () => {
    const lights = Float32Array.from({ length: 1000 }, (_, i) => ((i * 7919) % 1000) / 40);
    const burntAt = (stops: number) =>
      lights.filter((light) => light * 2 ** -stops > BURNS_FROM).length / lights.length;
    for (const part of [0.01, 0.05, 0.3]) {
      const stops = stopsToDraw(lights, part);
      expect(burntAt(stops + 1e-4)).toBeLessThanOrEqual(part);
      expect(burntAt(stops - 0.05)).toBeGreaterThan(part);
    }
    expect(stopsToDraw(lights, 0.99)).toBe(0);
  });
});
