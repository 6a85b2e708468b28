import { afterEach, expect, jest, test } from '@jest/globals';
import type { AheadDesk } from '../../picture/ahead.ts';
import { FramePlayer } from './frame-player.ts';

const KEYS = ['a', 'b', 'c', 'd'];
const shown: string[] = [];
const canvas = {
  dataset: {} as Record<string, string>,
  getContext: () => ({ transferFromImageBitmap: ({ name }: { name: string }) => void shown.push(name) }),
};
const picture = (name: string) => ({ name, close: () => undefined }) as unknown as ImageBitmap;

/** Frames that somebody waits for, answered when the test says so. */
let waiting: Record<string, (made: ImageBitmap | null) => void> = {};
const sharp = jest.fn<AheadDesk['sharp']>();
const desk = {
  store: { has: () => false, get: () => Promise.resolve(null) },
  glance: ({ key }: { key: string }) => new Promise<ImageBitmap | null>((resolve) => (waiting[key] = resolve)),
  sharp,
} as unknown as AheadDesk;

let player: FramePlayer;
const start = () => {
  shown.length = 0;
  waiting = {};
  const size = { width: 4, height: 2 };
  const pictureOf = (frame: number) => Promise.resolve({ key: KEYS[frame]!, picture: {} as never });
  player = new FramePlayer(canvas as unknown as HTMLCanvasElement, desk, pictureOf, size);
};
const show = async (frame: number) => {
  player.show({ frame, keys: KEYS, playing: false, size: { width: 8, height: 4 } });
  await new Promise((resolve) => setTimeout(resolve));
};
const answer = async (key: string) => {
  waiting[key]!(picture(key));
  await new Promise((resolve) => setTimeout(resolve));
};
afterEach(() => player.close());

test('while a hand runs over frames it sees those that come, however far it has gone on; nothing older after something newer', async () => {
  start();
  await show(0);
  await show(2);
  await answer('a');
  expect(canvas.dataset['frame']).toBe('0');
  await show(3);
  await answer('d');
  await answer('c');
  expect(shown).toEqual(['a', 'd']);
  expect(canvas.dataset['frame']).toBe('3');
});

test('back at what is shown, what was asked for meanwhile comes too late', async () => {
  start();
  await show(0);
  await answer('a');
  await show(1);
  await show(0);
  await answer('b');
  expect(shown).toEqual(['a']);
  expect(canvas.dataset['frame']).toBe('0');
});

test('what rests is drawn sharply', async () => {
  start();
  sharp.mockResolvedValue(picture('sharp b'));
  await show(1);
  await answer('b');
  await new Promise((resolve) => setTimeout(resolve, 600));
  expect(shown).toEqual(['b', 'sharp b']);
  expect(canvas.dataset['sharp']).toBe('true');
});
