import { afterEach, describe, expect, test } from '@jest/globals';
import * as Comlink from 'comlink';
import { MessageChannel } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { AheadDesk, type AheadWish, type AheadWishes } from './ahead.ts';
import type { AheadStore } from './ahead-store.ts';

/** What the worker was asked to draw, in its order. */
let asked: string[] = [];
const failing = new Set<string>();
const api = {
  setScenes: () => undefined,
  keep: (picture: { name: string }) => {
    asked.push(picture.name);
    if (failing.has(picture.name)) throw new Error('no picture');
    return `picture of ${picture.name}`;
  },
  glance: (picture: { name: string }) => {
    asked.push(`glance ${picture.name}`);
    return `glance of ${picture.name}`;
  },
  /** Takes as long as it is not told to give way, where it is told so at all. */
  show: async (picture: { name: string }) => {
    asked.push(`sharp ${picture.name}`);
    const gave = picture.name === 'slow' && asked.filter((name) => name === 'sharp slow').length === 1;
    if (gave) await new Promise<void>((resolve) => (api.giveWay = resolve));
    return gave ? null : `sharp picture of ${picture.name}`;
  },
  giveWay: () => {},
};

/** A worker that answers at once, over a channel of messages. */
function fakeWorker(): unknown {
  const { port1, port2 } = new MessageChannel();
  const endpoint = (port: unknown) => (nodeEndpoint as unknown as (port: unknown) => Comlink.Endpoint)(port);
  Comlink.expose(api, endpoint(port1));
  const worker = endpoint(port2) as Comlink.Endpoint & { terminate: () => void };
  const listen = worker.addEventListener.bind(worker);
  // The adapter takes every listener for one of messages.
  worker.addEventListener = (type, ...more) => void (type === 'message' && listen(type, ...more));
  worker.terminate = () => {
    port1.close();
    port2.close();
  };
  return worker;
}
Object.defineProperty(globalThis, 'Worker', { configurable: true, value: fakeWorker });

class MemoryStore implements AheadStore {
  readonly kept = new Map<string, unknown>();
  has = (key: string) => this.kept.has(key);
  get = (key: string) => Promise.resolve((this.kept.get(key) as Blob | undefined) ?? null);
  put = (key: string, picture: unknown) => void this.kept.set(key, picture);
}

const wish = (key: string): AheadWish => ({
  key,
  size: { width: 4, height: 2 },
  picture: () => Promise.resolve({ key, picture: { name: key } as never }),
});
const wishes = (keys: readonly string[]): AheadWishes => ({
  count: keys.length,
  keyOf: (i) => keys[i]!,
  wishOf: (i) => wish(keys[i]!),
});
const until = async (holds: () => boolean) => {
  for (let i = 0; i < 2000 && !holds(); i += 1) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(holds()).toBe(true);
};

let desk: AheadDesk;
const start = (store = new MemoryStore()) => {
  asked = [];
  desk = new AheadDesk(() => undefined, store);
  return store;
};
afterEach(() => {
  desk.close();
  failing.clear();
});

describe('frames drawn ahead', () => {
  test('come in their order, those that are there already are left out', async () => {
    const store = start();
    store.put('b', 'there');
    desk.want(wishes(['a', 'b', 'c']));
    await until(() => store.kept.size === 3);
    expect(asked).toEqual(['a', 'c']);
  });

  test('wait while a hand is at work, and none of them is forgotten', async () => {
    const store = start();
    window.dispatchEvent(new Event('pointermove'));
    desk.want(wishes(['a', 'b', 'c']));
    await until(() => store.kept.size === 3);
    expect(asked).toEqual(['a', 'b', 'c']);
  });

  test('what is waited for comes before them, and while it plays nothing else is drawn', async () => {
    const store = start();
    desk.pause(true);
    desk.want(wishes(['a', 'b']));
    await desk.now(wish('urgent'));
    expect(asked).toEqual(['urgent']);
    desk.pause(false);
    await until(() => store.kept.size === 3);
    expect(asked).toEqual(['urgent', 'a', 'b']);
    // What is kept is not drawn again.
    await desk.now(wish('a'));
    expect(asked).toHaveLength(3);
  });

  test('a passing look is not kept; of frames that a hand has run over none is drawn', async () => {
    const store = start();
    desk.pause(true);
    let at = 'a';
    const looks = ['a', 'b', 'c'].map((key) => {
      at = key;
      return desk.glance(wish(key), () => at === key);
    });
    // The first one had its turn at once.
    expect(await Promise.all(looks)).toEqual(['glance of a', null, 'glance of c']);
    expect(asked).toEqual(['glance a', 'glance c']);
    expect(store.kept.size).toBe(0);
  });

  test('a picture that is being sharpened gives way to what is waited for, and is begun anew', async () => {
    start();
    const { picture } = wish('slow');
    const sharp = desk.sharp(picture, { width: 8, height: 4 }, () => true);
    await until(() => asked.includes('sharp slow'));
    await desk.now(wish('urgent'));
    expect(await sharp).toBe('sharp picture of slow');
    expect(asked).toEqual(['sharp slow', 'urgent', 'sharp slow']);
  });

  test('a press lets it give way as well; one that is not wanted any more is not begun again', async () => {
    start();
    let wanted = true;
    const sharp = desk.sharp(wish('slow').picture, { width: 8, height: 4 }, () => wanted);
    await until(() => asked.includes('sharp slow'));
    wanted = false;
    window.dispatchEvent(new Event('pointerdown'));
    expect(await sharp).toBeNull();
    expect(asked).toEqual(['sharp slow']);
  });

  test('frames of a reel beside it come by turns', async () => {
    const store = start();
    desk.want(wishes(['a', 'b', 'c']));
    desk.want(wishes(['v', 'b']), 'beside');
    await until(() => store.kept.size === 4);
    expect(asked).toEqual(['a', 'v', 'b', 'c']);
  });

  test('one that cannot be drawn stops none of the others, and a worker that always fails is let be', async () => {
    const store = start();
    failing.add('bad');
    desk.want(wishes(['bad', 'a']));
    await until(() => store.has('a'));
    expect(await desk.now(wish('bad')).catch(() => null)).toBeNull();
    for (const name of ['u', 'v', 'w', 'x', 'y', 'z']) failing.add(name);
    desk.want(wishes(['u', 'v', 'w', 'x', 'y', 'z']));
    await until(() => asked.includes('w'));
    await desk.now(wish('good'));
    expect(asked.indexOf('good')).toBe(asked.indexOf('w') + 1);
  });
});
