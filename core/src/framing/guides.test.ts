import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cutOut, guideLines, GUIDES, middleArea, SAFE_AREAS } from './index.ts';

const aspects = fc.double({ min: 0.3, max: 3, noNaN: true });

describe('guides', () => {
  test('all lines lie in the picture and lie there mirrored, too', () => {
    fc.assert(
      fc.property(aspects, fc.constantFrom(...GUIDES), (aspect, guide) => {
        const lines = guideLines(guide, aspect);
        const key = (line: readonly number[]) => {
          const [x1, y1, x2, y2] = line.map((value) => Math.round(value * 1e6) / 1e6 + 0) as [
            number,
            number,
            number,
            number,
          ];
          return [`${x1},${y1}`, `${x2},${y2}`].sort().join(' ');
        };
        const all = new Set(lines.map(key));
        for (const line of lines) {
          for (const value of line) expect(value).toBeGreaterThanOrEqual(0);
          for (const value of line) expect(value).toBeLessThanOrEqual(1);
          expect(all.has(key(line.map((value, k) => (k % 2 === 0 ? 1 - value : value))))).toBe(true);
          expect(all.has(key(line.map((value, k) => (k % 2 === 1 ? 1 - value : value))))).toBe(true);
        }
      }),
    );
  });

  test('the golden section divides both parts alike', () => {
    const [[at]] = guideLines('golden', 1.5) as unknown as [[number]];
    expect((1 - at) / at).toBeCloseTo(1 / (1 - at), 12);
  });

  test('lines from the corners meet the diagonals squarely', () => {
    fc.assert(
      fc.property(aspects, (aspect) => {
        const [down, up, ...square] = guideLines('diagonals', aspect);
        const way = ([x1, y1, x2, y2]: readonly number[]) => [(x2! - x1!) * aspect, y2! - y1!] as const;
        square.forEach((line, i) => {
          const [a, b] = [way(line), way(i < 2 ? down! : up!)];
          expect(a[0] * b[0] + a[1] * b[1]).toBeCloseTo(0, 9);
          // It ends on it.
          const [, , x, y] = line;
          expect(i < 2 ? y - x : y - (1 - x)).toBeCloseTo(0, 9);
        });
      }),
    );
  });
});

// SMPTE ST 2046-1 and EBU R 95, from memory: 1920 × 1080 has its safe action at 67 and 38 px (3.5 %), its safe title at
// 96 and 54 px (5 %).
test('safe areas of 1920 × 1080', () => {
  const [action, title] = [middleArea(SAFE_AREAS.action), middleArea(SAFE_AREAS.title)];
  expect([action.x * 1920, action.y * 1080].map(Math.round)).toEqual([67, 38]);
  expect([title.x * 1920, title.y * 1080].map(Math.round)).toEqual([96, 54]);
});

test('a ratio cut out of another is as large as it goes: 4:5 and 2.39:1 of 16:9', () => {
  const tall = cutOut(16 / 9, 4 / 5);
  expect(tall).toEqual({ x: expect.closeTo(0.275, 9), y: 0, width: expect.closeTo(0.45, 9), height: 1 });
  const wide = cutOut(16 / 9, 2.39);
  expect(wide.width).toBe(1);
  expect(wide.height).toBeCloseTo(0.7438, 4);
  fc.assert(
    fc.property(aspects, aspects, (aspect, inner) => {
      const { x, y, width, height } = cutOut(aspect, inner);
      expect((width * aspect) / height).toBeCloseTo(inner, 9);
      expect(Math.max(width, height)).toBeCloseTo(1, 12);
      expect([x, y]).toEqual([(1 - width) / 2, (1 - height) / 2]);
    }),
  );
});
