import { describe, expect, test } from '@jest/globals';
import { fadedPasses } from './fading.ts';

/** How much of a thing is in a picture of these passes. */
const shown = (passes: ReturnType<typeof fadedPasses>, presence: number): number =>
  passes.filter(({ share }) => presence > share).reduce((sum, { weight }) => sum + weight, 0);
const whole = (passes: ReturnType<typeof fadedPasses>) => passes.reduce((sum, { weight }) => sum + weight, 0);

describe('passes of a picture in which something fades', () => {
  test('weigh the same where nothing does', () => {
    for (const none of [null, [], [0, 1, 1]])
      expect(fadedPasses(none, 4).map(({ weight }) => weight)).toEqual([0.25, 0.25, 0.25, 0.25]);
    expect(fadedPasses(null, 1)).toEqual([{ share: 0.5, weight: 1 }]);
  });

  test('together show as much of each thing as is there, of hundreds of random ones', () => {
    let seed = 7;
    const random = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    for (let i = 0; i < 400; i += 1) {
      const count = 2 + Math.floor(random() * 15);
      const presences = Array.from({ length: 1 + Math.floor(random() * (count - 1)) }, random);
      const passes = fadedPasses(presences, count);
      expect(passes).toHaveLength(count);
      expect(whole(passes)).toBeCloseTo(1, 12);
      // Two that are there to nearly the same part are drawn as one.
      const off = presences.map((presence) => Math.abs(shown(passes, presence) - presence));
      expect(Math.max(...off)).toBeLessThan(0.005);
      expect([0, 1].map((presence) => shown(passes, presence))).toEqual([0, expect.closeTo(1, 12)]);
    }
  });

  test('of more things than passes shows those that are alike as one, and none the wrong way round', () => {
    const passes = fadedPasses([0.1, 0.12, 0.5, 0.9], 4);
    expect(shown(passes, 0.5)).toBeCloseTo(0.5, 12);
    expect(shown(passes, 0.9)).toBeCloseTo(0.9, 12);
    expect(Math.abs(shown(passes, 0.1) - 0.1)).toBeLessThan(0.03);
    expect(shown(fadedPasses([0.6], 1), 0.6)).toBe(1);
    expect(shown(fadedPasses([0.4], 1), 0.4)).toBe(0);
  });

  test('are as even as they can be, so that edges stay smooth', () => {
    const weights = fadedPasses([0.9], 8).map(({ weight }) => weight);
    expect(Math.max(...weights)).toBeLessThan(0.15);
    // And those without it are not the first ones, or the last.
    const order = fadedPasses([0.5], 8).map(({ share }) => share < 0.5);
    expect(new Set(order.slice(0, 3)).size).toBe(2);
    expect(new Set(order.slice(5)).size).toBe(2);
  });
});
