import { expect, jest, test } from '@jest/globals';
import { GraphicsGone, noPixels, unbroken, type Breakable } from './unbroken.ts';

/** A card that is lost and comes back as told. */
class Card implements Breakable {
  lost = false;
  private back: () => void = () => {};
  private readonly returns = () => new Promise<void>((resolve) => (this.back = resolve));
  whenUsable = () => (this.lost ? this.returns() : Promise.resolve());
  giveBack(): void {
    this.lost = false;
    this.back();
  }
}

test('what was drawn while the card went is drawn again, when it is back', async () => {
  const card = new Card();
  const wasted = jest.fn();
  let drawn = 0;
  const picture = unbroken(
    card,
    () => {
      drawn += 1;
      if (drawn === 1) card.lost = true;
      return drawn;
    },
    { wasted },
  );
  await new Promise((resolve) => setTimeout(resolve, 80));
  expect(drawn).toBe(1);
  card.giveBack();
  expect(await picture).toBe(2);
  expect(wasted).toHaveBeenCalledWith(1);
});

test('nothing is drawn while there is no card', async () => {
  const card = new Card();
  card.lost = true;
  const draw = jest.fn(() => 'picture');
  const picture = unbroken(card, draw);
  await Promise.resolve();
  expect(draw).not.toHaveBeenCalled();
  card.giveBack();
  expect(await picture).toBe('picture');
});

test('a card that stays away is said, and so is one that goes every time', async () => {
  const away = new Card();
  away.lost = true;
  await expect(unbroken(away, () => 1, { patience: 20 })).rejects.toBeInstanceOf(GraphicsGone);
  const flighty: Breakable = {
    get lost() {
      return true;
    },
    whenUsable: () => Promise.resolve(),
  };
  await expect(unbroken(flighty, () => 1, { patience: 100 })).rejects.toBeInstanceOf(GraphicsGone);
});

test('a card that is gone and has not said so yet is known by what it drew', async () => {
  const card = new Card();
  let drawn = 0;
  const pixels = await unbroken(card, () => new Uint8Array(4).fill((drawn += 1) < 3 ? 0 : 255), { isEmpty: noPixels });
  expect(drawn).toBe(3);
  expect(pixels[3]).toBe(255);
});
