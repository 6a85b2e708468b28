import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { layOutSheet, PAPERS, tallPaper } from './index.ts';

describe('contact sheets', () => {
  test('pictures keep their ratio, lie on the paper and never on each other, nor on captions', () => {
    const aspects = fc.array(fc.double({ min: 0.4, max: 2.5, noNaN: true }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(
        fc.constantFrom(...PAPERS, ...PAPERS.map(tallPaper)),
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 5 }),
        aspects,
        (paper, columns, rows, all) => {
          const { pages, cells } = layOutSheet(paper, columns, rows, all);
          expect(pages).toBe(Math.ceil(all.length / (columns * rows)));
          const taken: { page: number; x0: number; x1: number; y0: number; y1: number }[] = [];
          cells.forEach(({ page, picture, caption }, i) => {
            expect(picture.width / picture.height).toBeCloseTo(all[i]!, 6);
            // With its caption of two lines, 9 mm.
            const area = { page, x0: caption.x, x1: caption.x + caption.width, y0: picture.y, y1: caption.y + 4.4 };
            expect(area.x0).toBeGreaterThanOrEqual(0);
            expect(picture.x + picture.width).toBeLessThanOrEqual(area.x1 + 1e-9);
            expect(area.x1).toBeLessThanOrEqual(paper.width);
            expect(area.y0).toBeGreaterThan(0);
            expect(area.y1).toBeLessThan(paper.height);
            for (const other of taken)
              expect(
                other.page !== page ||
                  area.x0 >= other.x1 ||
                  other.x0 >= area.x1 ||
                  area.y0 >= other.y1 ||
                  other.y0 >= area.y1,
              ).toBe(true);
            taken.push(area);
          });
        },
      ),
    );
  });

  // ISO 216: A4 is 210 × 297 mm, A3 297 × 420 mm.
  test('nothing to show is still a page; paper stands and lies', () => {
    expect(layOutSheet(PAPERS[0]!, 3, 3, []).pages).toBe(1);
    expect(PAPERS.map(tallPaper)).toEqual([
      { name: 'A4', width: 210, height: 297 },
      { name: 'A3', width: 297, height: 420 },
    ]);
  });
});
