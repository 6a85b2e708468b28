import { describe, expect, test } from '@jest/globals';
import { KeptFrames } from './kept-frames.ts';

/** A picture that knows whether it is closed. */
const picture = (name: string, width: number) => {
  const made = { name, width, height: 10, closed: false, close: () => void (made.closed = true) };
  return made as unknown as ImageBitmap & { name: string; closed: boolean };
};
const copyOf = (bitmap: ImageBitmap) =>
  Promise.resolve(picture((bitmap as ReturnType<typeof picture>).name, bitmap.width));
const nameOf = async (kept: Promise<ImageBitmap> | null) => ((await kept) as ReturnType<typeof picture> | null)?.name;

describe('frames that were drawn while something played', () => {
  test('are there again, as copies: each may be used up', async () => {
    const frames = new KeptFrames(copyOf);
    expect(frames.get(3)).toBeNull();
    await frames.keep(3, picture('three', 20));
    expect(await nameOf(frames.get(3))).toBe('three');
    expect(await frames.get(3)).not.toBe(await frames.get(3));
  });

  test('finer ones take the place of coarser ones, never the other way', async () => {
    const frames = new KeptFrames(copyOf);
    await frames.keep(0, picture('coarse', 20));
    await frames.keep(0, picture('fine', 40));
    await frames.keep(0, picture('coarse again', 20));
    expect(await nameOf(frames.get(0))).toBe('fine');
    // Whoever waits for every frame wants none that is coarser than the picture.
    expect(await nameOf(frames.get(0, 40))).toBe('fine');
    expect(frames.get(0, 41)).toBeNull();
    expect(frames.size).toBe(1);
  });

  test('no more are held than there is room for: the first ones go, and are closed', async () => {
    const copies: ReturnType<typeof picture>[] = [];
    const copy = async (bitmap: ImageBitmap) => {
      const made = (await copyOf(bitmap)) as ReturnType<typeof picture>;
      copies.push(made);
      return made;
    };
    // Three pictures of 20 × 10.
    const frames = new KeptFrames(copy, 3 * 800);
    for (let n = 0; n < 5; n += 1) await frames.keep(n, picture(String(n), 20));
    expect([0, 1, 2, 3, 4].map((n) => frames.get(n) !== null)).toEqual([false, false, true, true, true]);
    expect(copies.slice(0, 5).map(({ closed }) => closed)).toEqual([true, true, false, false, false]);
  });

  test('what arrives after something else is shown is not held', async () => {
    let answer: (bitmap: ImageBitmap) => void = () => {};
    const frames = new KeptFrames(() => new Promise((resolve) => (answer = resolve)));
    const late = picture('late', 20);
    const kept = frames.keep(1, picture('one', 20));
    frames.clear();
    answer(late);
    await kept;
    expect(frames.get(1)).toBeNull();
    expect(late.closed).toBe(true);
  });
});
