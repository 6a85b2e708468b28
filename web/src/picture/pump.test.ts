import { describe, expect, jest, test } from '@jest/globals';
import { DEFAULT_LENS } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { nextScale, PicturePump, sharpPasses } from './pump.ts';

const sample = (x: number): CameraSample => standing({ position: [x, 0, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS);
const size = { width: 400, height: 225 };

/** A renderer that answers when it is told to. */
function fakeRenderer() {
  const asked: { x: number; width: number; subframes: number; answer: (gaveWay?: boolean) => void }[] = [];
  const draw = (s: CameraSample, { width }: typeof size, subframes: number) =>
    new Promise<{ bitmap: ImageBitmap; triangles: number } | null>((resolve) =>
      asked.push({
        x: s.position[0],
        width,
        subframes,
        answer: (gaveWay = false) =>
          resolve(gaveWay ? null : { bitmap: { close: () => undefined } as ImageBitmap, triangles: 0 }),
      }),
    );
  let left = 0;
  return { asked, draw, giveWay: () => (left += 1), left: () => left };
}
const turns = async () => {
  for (let i = 0; i < 5; i += 1) await Promise.resolve();
};

describe('the picture pump', () => {
  test('draws the newest sample and skips what came between', async () => {
    const { asked, draw, giveWay } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, giveWay, show: (_, sharp) => shown.push(sharp) });
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

  test('what is out of focus gets many passes, once it is sharp where it is to be; and again where that gave way', async () => {
    jest.useFakeTimers();
    const { asked, draw, giveWay } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, giveWay, show: (_, sharp) => shown.push(sharp) });
    const rest = async () => {
      await turns();
      jest.advanceTimersByTime(400);
      await turns();
    };
    const soft = standing(
      { position: [7, 0, 0], orientation: [0, 0, 0, 1] },
      { ...DEFAULT_LENS, focus: 2, fNumber: 2.8 },
    );
    pump.show(soft, size);
    asked[0]!.answer();
    await rest();
    asked[1]!.answer();
    await turns();
    expect(asked.map(({ subframes }) => subframes)).toEqual([1, expect.any(Number), 24]);
    expect(shown).toEqual([false, true]);
    asked[2]!.answer(true);
    await rest();
    // What is sharp already is not drawn so again.
    expect(asked.slice(3).map(({ subframes }) => subframes)).toEqual([24]);
    asked[3]!.answer();
    await rest();
    expect(shown).toEqual([false, true, true]);
    expect(asked).toHaveLength(4);
    pump.stop();
    jest.useRealTimers();
  });

  test('gives up resolution while things move, but not where every picture is waited for', async () => {
    const { asked, draw, giveWay } = fakeRenderer();
    let patient = false;
    const seen: number[] = [];
    const pump = new PicturePump({
      draw,
      giveWay,
      patient: () => patient,
      show: (_, __, { position }) => seen.push(position[0]),
    });
    pump.show(sample(1), size);
    patient = true;
    pump.show(sample(2), size);
    asked[0]!.answer();
    await turns();
    expect(asked.map(({ width }) => width)).toEqual([expect.any(Number), 400]);
    expect(asked[0]!.width).toBeLessThan(400);
    asked[1]!.answer();
    await turns();
    // Whoever waits is told what each is a picture of.
    expect(seen).toEqual([1, 2]);
    pump.stop();
  });

  test('what was drawn before is shown again and not drawn; what was being drawn meanwhile is told of and not shown', async () => {
    const { asked, draw, giveWay } = fakeRenderer();
    const [seen, told]: [number[], number[]] = [[], []];
    const bitmap = () => ({ close: () => undefined }) as ImageBitmap;
    const pump = new PicturePump({
      draw,
      giveWay,
      again: ({ position: [x] }) =>
        x === 2 ? Promise.resolve(bitmap()) : x === 3 ? Promise.reject(new Error()) : null,
      drawn: (_, { position }) => told.push(position[0]),
      show: (_, __, { position }) => seen.push(position[0]),
    });
    pump.show(sample(1), size);
    pump.show(sample(2), size);
    await turns();
    expect(seen).toEqual([2]);
    asked[0]!.answer();
    await turns();
    expect([seen, told]).toEqual([[2], [1]]);
    // Where the picture is lost it is drawn after all.
    pump.show(sample(3), size);
    await turns();
    asked[1]!.answer();
    await turns();
    expect([seen, told]).toEqual([
      [2, 3],
      [1, 3],
    ]);
    expect(asked.map(({ x }) => x)).toEqual([1, 3]);
    pump.stop();
  });

  test('after it is stopped nothing is shown any more', async () => {
    const { asked, draw, giveWay } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, giveWay, show: (_, sharp) => shown.push(sharp) });
    pump.show(sample(1), size);
    pump.stop();
    asked[0]!.answer();
    await turns();
    expect(shown).toEqual([]);
  });

  test('a sharp picture gives way to a newer sample, and is begun anew where it gave way to something else', async () => {
    const { asked, draw, giveWay, left } = fakeRenderer();
    const shown: boolean[] = [];
    const pump = new PicturePump({ draw, giveWay, show: (_, sharp) => shown.push(sharp) });
    const until = async (count: number) => {
      for (let i = 0; i < 400 && asked.length < count; i += 1) await new Promise((resolve) => setTimeout(resolve, 5));
      expect(asked).toHaveLength(count);
    };
    pump.show(sample(1), size);
    asked[0]!.answer();
    await until(2);
    expect(asked[1]!.subframes).toBeGreaterThan(1);
    pump.show(sample(2), size);
    expect(left()).toBe(1);
    asked[1]!.answer(true);
    await until(3);
    expect(asked[2]).toMatchObject({ x: 2, subframes: 1 });
    asked[2]!.answer();
    await until(4);
    // Nothing newer is wanted: it gave way to a thumbnail, say.
    asked[3]!.answer(true);
    await until(5);
    expect(asked[4]).toMatchObject({ x: 2 });
    expect(asked[4]!.subframes).toBeGreaterThan(1);
    asked[4]!.answer();
    await turns();
    expect(shown).toEqual([false, false, true]);
    pump.stop();
  });

  test('where the camera stays and what it sees changes, nothing coarse takes the place of what is sharp', async () => {
    const { asked, draw, giveWay } = fakeRenderer();
    const now = performance.now.bind(performance);
    let later = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => now() + later);
    const pump = new PicturePump({ draw, giveWay, show: () => {} });
    const answered = async (count: number) => {
      for (let i = 0; i < 400 && asked.length < count; i += 1) await new Promise((resolve) => setTimeout(resolve, 5));
      // A slow machine.
      later += 100;
      asked[count - 1]!.answer();
      await turns();
      return asked[count - 1]!;
    };
    const stays = sample(1);
    pump.show(stays, size);
    expect((await answered(1)).width).toBeLessThan(size.width);
    expect((await answered(2)).subframes).toBeGreaterThan(1);
    // New light comes: a whole picture at once, and a sharp one after it.
    later += 5000;
    pump.show(stays, size);
    expect(await answered(3)).toMatchObject({ width: size.width, subframes: 1 });
    expect((await answered(4)).subframes).toBeGreaterThan(1);
    // Changes that follow each other are a movement, as another place is, and another size.
    pump.show(stays, size);
    expect((await answered(5)).width).toBeLessThan(size.width);
    expect((await answered(6)).subframes).toBeGreaterThan(1);
    later += 5000;
    pump.show(stays, { width: 800, height: 450 });
    expect((await answered(7)).width).toBeLessThan(400);
    expect((await answered(8)).subframes).toBeGreaterThan(1);
    later += 5000;
    pump.show(sample(2), { width: 800, height: 450 });
    expect((await answered(9)).width).toBeLessThan(400);
    pump.stop();
    clock.mockRestore();
  });
});

test('resolution settles where a machine can follow: it neither swings to and fro nor stays coarse', () => {
  /** What a picture takes on a machine: something for itself, and something for its pixels. */
  const settled = (itself: number, pixels: number, from: number) => {
    let scale = from;
    const last: number[] = [];
    for (let i = 0; i < 20; i += 1) {
      scale = nextScale(scale, itself + pixels * [1, 0.75, 0.5, 0.35, 0.25][scale]! ** 2);
      last.push(scale);
    }
    return [...new Set(last.slice(-4))];
  };
  // A graphics card draws it whole, wherever it begins.
  expect(settled(2, 6, 4)).toEqual([0]);
  // What would come less than twelve times a second is drawn as coarsely as there is.
  expect(settled(30, 400, 2)).toEqual([4]);
  // And as soon as the machine is free again, finer.
  expect(settled(15, 150, 4)).toEqual([3]);
  // Nothing is coarser than the coarsest.
  expect(settled(200, 400, 0)).toEqual([4]);
});

test('a picture that rests has more passes where they take no time', () => {
  // Not known yet, and on a graphics card.
  expect([0, 2, 12].map(sharpPasses)).toEqual([6, 6, 6]);
  // However slow the machine, edges have no stairs.
  expect([60, 250, 5000].map(sharpPasses)).toEqual([4, 4, 4]);
});
