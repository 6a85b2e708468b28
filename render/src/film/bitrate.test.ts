import { expect, test } from '@jest/globals';
import { bitrateOf } from './bitrate.ts';

const PAL = { num: 25, den: 1 };
const size = (width: number) => ({ width, height: (width * 9) / 16 });

test('a small film has more bits for each of its pixels, a large one more in all', () => {
  expect(bitrateOf(size(1920), PAL)).toBe(16_000_000);
  let before = { all: 0, each: Infinity };
  for (const width of [320, 640, 1280, 1920, 3840]) {
    const all = bitrateOf(size(width), PAL);
    const each = all / (width * size(width).height * 25);
    expect(all).toBeGreaterThan(before.all);
    expect(each).toBeLessThan(before.each);
    before = { all, each };
  }
  // By hand: a ninth of the pixels, 9^0.75 = 5.196 times fewer bits.
  expect(bitrateOf(size(640), PAL) / 16_000_000).toBeCloseTo(1 / 5.196, 4);
});

test('twice the frames, twice the bits', () => {
  expect(bitrateOf(size(1280), { num: 50, den: 1 })).toBe(2 * bitrateOf(size(1280), PAL));
  expect(bitrateOf(size(1280), { num: 24_000, den: 1001 }) / bitrateOf(size(1280), PAL)).toBeCloseTo(0.95904, 5);
});
