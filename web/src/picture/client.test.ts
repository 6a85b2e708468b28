import { beforeEach, expect, jest, test } from '@jest/globals';
import type { CameraSample } from '@eskovan/core/move';
import type { PictureScene } from './source.ts';

/** What the worker was asked, and the answers that it still owes. */
const asked: string[] = [];
const owed: (() => void)[] = [];
const answer = (what: string) =>
  new Promise<{ triangles: number }>((resolve, reject) => {
    asked.push(what);
    owed.push(() => (what.includes('broken') ? reject(new Error('It is broken.')) : resolve({ triangles: 12 })));
  });
let stopWorker: (error: Error) => void;
const stopped = new Promise<never>((_, reject) => (stopWorker = reject));
stopped.catch(() => {});
jest.unstable_mockModule('./worker-link.ts', () => ({
  onRenewed: () => {},
  orFailed: <T>(reply: Promise<T>) => Promise.race([reply, stopped]),
  pictureWorker: () => ({
    load: ({ source }: PictureScene) => answer(`load ${source.kind === 'lit' ? source.url : 'plain'}`),
    draw: () => answer('draw'),
  }),
}));
const { drawPicture, loadPicture, usePictureState } = await import('./client.ts');
const { sceneKey } = await import('./source.ts');

const scene = (url: string, glance?: string): PictureScene => ({
  source: { kind: 'lit', url, ...(glance ? { glance } : {}) },
  dress: { look: 'natural', exposure: 0, parts: {}, materials: {} },
  geometry: 'house',
  light: { sun: [0, 1, 0], sky: 'clear', lamps: { lit: true, except: [] } },
  actions: [],
});
const SAMPLE = { position: [0, 0, 0], orientation: [0, 0, 0, 1] } as unknown as CameraSample;
const reply = async () => {
  owed.shift()!();
  await new Promise((resolve) => setTimeout(resolve));
};
const state = usePictureState.getState;

beforeEach(() => {
  asked.length = 0;
  owed.length = 0;
  usePictureState.setState({ drawable: null, loaded: null, loading: false, error: null });
});

test('a light scene is loaded once, however often it is asked for', async () => {
  const light = scene('light');
  void loadPicture(light, true);
  void loadPicture(light, true);
  expect(asked).toEqual(['load light']);
  expect(state()).toMatchObject({ loading: true, loaded: null });
  await reply();
  expect(state()).toMatchObject({ loading: false, loaded: sceneKey(light), drawable: sceneKey(light) });
});

test('a heavy scene is drawn as a glance before the whole is asked for', async () => {
  const heavy = scene('heavy', 'its glance');
  void loadPicture(heavy, true);
  expect(asked).toEqual(['load its glance']);
  await reply();
  // Drawable, but not there as a whole: nobody chooses parts of a glance.
  expect(state()).toMatchObject({ loading: true, drawable: sceneKey(heavy), loaded: null });
  expect(asked).toEqual(['load its glance']);
  void drawPicture(SAMPLE, { width: 16, height: 9 }, 1);
  await reply();
  expect(asked).toEqual(['load its glance', 'draw', 'load heavy']);
  await reply();
  expect(state()).toMatchObject({ loading: false, loaded: sceneKey(heavy) });
});

test('a heavy scene that replaces a shown one needs no glance: the one before goes on being shown', async () => {
  void loadPicture(scene('heavy 2', 'its glance'));
  expect(asked).toEqual(['load heavy 2']);
  await reply();
});

test('of two scenes the newer counts, whichever answers last', async () => {
  void loadPicture(scene('first'));
  void loadPicture(scene('second'));
  await reply();
  expect(state()).toMatchObject({ loading: true, loaded: null });
  await reply();
  expect(state().loaded).toBe(sceneKey(scene('second')));
});

test('a failure is told, and asking again tries again', async () => {
  void loadPicture(scene('broken'));
  await reply();
  expect(state()).toMatchObject({ loading: false, loaded: null });
  // In words of our own: what a graphics driver says is for nobody.
  expect(state().error).toMatch(/could not be made ready/);
  expect(state().error).not.toContain('It is broken');
  void loadPicture(scene('broken'));
  expect(asked).toEqual(['load broken', 'load broken']);
  await reply();
});

test('a worker that stops is told to whoever waits for it: nothing is brought for ever', async () => {
  void loadPicture(scene('never comes'));
  stopWorker(new Error('no such worker'));
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(state()).toMatchObject({ loading: false });
  expect(state().error).toMatch(/Reload the page/);
});
