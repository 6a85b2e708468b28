import { expect, test } from '@jest/globals';
import { mirrorWeight } from './surroundings.ts';

test('the mirrors of a frame count as often as it has sub-frames, whoever looks into them', () => {
  for (let subframes = 1; subframes <= 64; subframes += 1) {
    const weights = Array.from({ length: subframes }, (_, i) => mirrorWeight(i, subframes));
    expect(weights.reduce((a, b) => a + b, 0)).toBeCloseTo(subframes, 9);
    const looking = weights.filter((weight) => weight > 0).length;
    expect(looking).toBeGreaterThanOrEqual(Math.min(2, subframes));
    expect(looking).toBeLessThanOrEqual(Math.max(2, Math.ceil(subframes / 4)));
    expect(weights[0]).toBeGreaterThan(0);
  }
});
