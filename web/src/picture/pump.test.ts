import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { PicturePump } from './pump.ts';

const sample = (x: number): CameraSample => standing({ position: [x, 0, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS);
const size = { width: 400, height: 225 };

/** A renderer that answers when it is told to. */
function fakeRenderer() {
  const asked: { x: number; subframes: number; answer: () => void }[] = [];
  const draw = (s: CameraSample, _: typeof size, subframes: number) =>
    new Promise<{ bitmap: ImageBitmap; triangles: number }>((resolve) =>
      asked.push({
        x: s.position[0],
        subframes,
        answer: () => resolve({ bitmap: { close: () => undefined } as ImageBitmap, triangles: 0 }),
      }),
    );
  return { asked, draw };
}
const turns = async () => {
  for (let i = 0; i < 5; i += 1) await Promise.resolve();
};

describe('the picture pump', () => {
  test('draws the newest sample and skips what came between', async () => {
    const { asked, draw } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, show: (_, sharp) => shown.push(sharp) });
    for (const x of [1, 2, 3, 4]) pump.show(sample(x), size);
    expect(asked.map(({ x }) => x)).toEqual([1]);
    asked[0]!.answer();
    await turns();
    expect(asked.map(({ x }) => x)).toEqual([1, 4]);
    asked[1]!.answer();
    await turns();
    expect(shown).toEqual([false, false]);
    pump.stop();
  });

  test('after it is stopped nothing is shown any more', async () => {
    const { asked, draw } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, show: (_, sharp) => shown.push(sharp) });
    pump.show(sample(1), size);
    pump.stop();
    asked[0]!.answer();
    await turns();
    expect(shown).toEqual([]);
  });
});
