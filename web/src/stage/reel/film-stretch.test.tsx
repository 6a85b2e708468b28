import { describe, expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import type { Row } from '@eskovan/core/document';
import { FilmStretch, stretchesOf, type PlacedBlock } from './film-stretch.tsx';
import type { ShotHands } from './shot-block.tsx';

/** The shots whose names were read since it was cleared: those that were drawn. */
const drawn = new Set<number>();
const rowOf = (i: number) =>
  ({
    id: `shot ${i}`,
    get name() {
      drawn.add(i);
      return `Shot ${i}`;
    },
    body: { reel: 'r', use: { kind: 'title' } },
  }) as unknown as Row<'shot'>;
const ROWS = Array.from({ length: 30 }, (_, i) => rowOf(i));

/** Shots of some widths, one after the other from a place on. */
function blocksOf(from: number, widthOf: (i: number) => number): PlacedBlock[] {
  let left = from;
  return ROWS.map((row, i) => {
    const width = widthOf(i);
    const block = { row, left, width, kind: null, frames: 25, lost: null, pictures: [null], chosen: false };
    left += width;
    return { ...block, people: NOBODY, join: i > 0 ? { name: `Join ${i}`, ...LOOK } : null } as PlacedBlock;
  });
}
const LOOK = { width: 28, blends: false, dips: false, colour: null, chosen: false };
const hands = {} as ShotHands;
const NOBODY: readonly string[] = [];
const RATE = { num: 25, den: 1 };

/** Where every shot lies that is in some stretch. */
const placesOf = (stretches: ReturnType<typeof stretchesOf>) =>
  stretches.flatMap(({ left, blocks }) => {
    let at = left;
    return blocks.map(({ gap, width }) => {
      const begins = at + gap;
      at = begins + width;
      return begins;
    });
  });

describe('stretches of the film strip', () => {
  test('put every shot where it belongs, and begin on whole pixels', () => {
    const blocks = blocksOf(108.5, (i) => 20.5 + (i % 3));
    // Two that overlap, as very narrow ones do.
    blocks[4] = { ...blocks[4]!, left: blocks[4]!.left - 2 };
    const stretches = stretchesOf(blocks);
    expect(stretches.length).toBeGreaterThan(2);
    placesOf(stretches).forEach((at, i) => expect(Math.abs(at - blocks[i]!.left)).toBeLessThanOrEqual(0.5));
    for (const { left } of stretches) expect(Number.isInteger(left)).toBe(true);
  });

  test('leave out what is not shown, and keep its neighbours in their places', () => {
    const all = blocksOf(100, () => 30);
    const shown = all.map((block, i) => (i < 5 || i > 20 ? null : block));
    const stretches = stretchesOf(shown);
    expect(stretches[0]!.first).toBe(5);
    expect(placesOf(stretches)).toEqual(all.slice(5, 21).map(({ left }) => left));
  });

  test('are not drawn again where they only move along, and are where one of theirs changes', () => {
    const show = (blocks: readonly PlacedBlock[]) => (
      <>
        {stretchesOf(blocks).map(({ first, left, blocks: own }) => (
          <div key={first} style={{ left }}>
            <FilmStretch {...{ first, hands }} blocks={own} height={78} rate={RATE} aspect={1.5} />
          </div>
        ))}
      </>
    );
    const { rerender } = render(show(blocksOf(108, () => 40)));
    expect(screen.getAllByRole('listitem')).toHaveLength(30);
    expect(screen.getByRole('button', { name: /^Shot 15, Shot 14/ })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Join 14' })).toBeTruthy();
    drawn.clear();
    // The third is longer: all after it lie farther right, by half a pixel more.
    rerender(show(blocksOf(108, (i) => (i === 2 ? 47.5 : 40))));
    expect([...drawn]).toEqual([2]);
  });
});
