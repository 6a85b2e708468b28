import { expect, test } from '@jest/globals';
import { randomFrom } from '../random.fixture.ts';
import { crownsOf } from './crowns.ts';

const total = (lines: readonly number[]) => {
  let sum = 0;
  for (let i = 0; i < lines.length; i += 4) sum += Math.hypot(lines[i + 2]! - lines[i]!, lines[i + 3]! - lines[i + 1]!);
  return sum;
};

test('a crown of cards is its outline, two crowns are two, a railing stays the lines that it is', () => {
  const random = randomFrom(7);
  const crown = (cx: number, cz: number, radius: number) =>
    Array.from({ length: 90 }, () => {
      const [turn, out, way] = [2 * Math.PI * random(), radius * Math.sqrt(random()), Math.PI * random()];
      const [x, z] = [cx + 0.8 * out * Math.cos(turn), cz + 0.8 * out * Math.sin(turn)];
      const half = 0.2 * radius;
      return [x - half * Math.cos(way), z - half * Math.sin(way), x + half * Math.cos(way), z + half * Math.sin(way)];
    }).flat();
  const lines = crownsOf([...crown(0, 0, 2), ...crown(8, 1, 1.5)]);
  const [one, other] = [0, 1].map((k) => lines.filter((_, i) => (lines[4 * Math.floor(i / 4)]! > 4 ? 1 : 0) === k)) as [
    number[],
    number[],
  ];
  // Two closed outlines, as long as circles of about those radii.
  expect(total(one) / (2 * Math.PI * 2)).toBeGreaterThan(0.8);
  expect(total(one) / (2 * Math.PI * 2)).toBeLessThan(1.05);
  expect(total(other) / (2 * Math.PI * 1.5)).toBeGreaterThan(0.8);
  for (const outline of [one, other])
    for (let i = 0; i < outline.length; i += 4)
      expect([outline[i + 2], outline[i + 3]]).toEqual([
        outline[(i + 4) % outline.length],
        outline[(i + 5) % outline.length],
      ]);
  const railing = [0, 0, 1, 0, 1, 0, 2, 0, 2, 0, 2, 1, 2, 1, 2, 2];
  expect(crownsOf(railing)).toEqual(railing);
  expect(crownsOf([])).toEqual([]);
});
