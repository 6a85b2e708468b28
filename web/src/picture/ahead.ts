import type { PictureSize, ReelPicture } from '@eskovan/render';
import * as Comlink from 'comlink';
import type { AheadWorker } from '../worker/ahead.worker.ts';
import { BrowserAheadStore, type AheadStore } from './ahead-store.ts';
import type { PictureScene } from './source.ts';

/** What a frame shows, by its name. */
export interface NamedPicture {
  key: string;
  picture: ReelPicture;
}

/** A frame that may be drawn: its name, and what it shows, asked when its turn comes: by then it may be another. */
export interface AheadWish {
  key: string;
  picture: () => Promise<NamedPicture>;
}

/** After a hand has done something nothing is drawn ahead for so long, milliseconds: the machine belongs to the hand. */
const AFTER_HAND = 160;
/** Passes of a frame that is looked at. */
const SHARP_PASSES = 5;

interface Hand {
  remote: Comlink.Remote<AheadWorker>;
  /** Never comes, unless the worker breaks. */
  broken: Promise<never>;
  stop: () => void;
}

/**
 * Draws frames of a reel before they are looked at, and keeps them by what they show. What somebody waits for comes first,
 * then what is wanted, in its order; one frame at a time, so that nobody waits for more than one.
 */
export class AheadDesk {
  readonly store: AheadStore;
  private hand: Hand | null = null;
  private wishes: readonly AheadWish[] = [];
  private next = 0;
  private urgent: (() => Promise<void>)[] = [];
  private working = false;
  private closed = false;
  private paused = false;
  private handAt = -Infinity;
  private failures = 0;
  private scenes: Readonly<Record<string, PictureScene>> = {};
  private readonly onInput = () => (this.handAt = performance.now());

  /**
   * @param size of what is kept, pixels
   * @param onChange tells that more is there
   */
  constructor(
    private size: PictureSize,
    private readonly onChange: () => void,
    store?: AheadStore,
  ) {
    this.store = store ?? new BrowserAheadStore(onChange);
    for (const kind of ['pointerdown', 'pointermove', 'keydown', 'wheel'] as const)
      window.addEventListener(kind, this.onInput, { passive: true, capture: true });
  }

  setSize(size: PictureSize): void {
    this.size = size;
  }

  setScenes(scenes: Readonly<Record<string, PictureScene>>): void {
    this.scenes = scenes;
    void this.hand?.remote.setScenes(scenes);
    this.failures = 0;
    void this.work();
  }

  /** What is to be drawn, the first first; what is there already is left out. */
  want(wishes: readonly AheadWish[]): void {
    this.wishes = wishes;
    this.next = 0;
    void this.work();
  }

  /** While something is played, only what was asked for urgently is drawn. */
  pause(paused: boolean): void {
    if (this.paused === paused) return;
    this.paused = paused;
    if (!paused) void this.work();
  }

  /** One frame now, small; null where it cannot be drawn. */
  now({ key, picture }: AheadWish): Promise<Blob | null> {
    return this.soon(async () => {
      const known = await this.store.get(key);
      return known ?? this.draw({ key, picture });
    });
  }

  /** One frame at the size that it is looked at, sharp. @param stillWanted asked when its turn comes */
  sharp(
    picture: () => Promise<NamedPicture>,
    size: PictureSize,
    stillWanted: () => boolean,
  ): Promise<ImageBitmap | null> {
    return this.soon(async () => {
      if (!stillWanted()) return null;
      const { picture: shown } = await picture();
      return this.orBroken(({ remote }) => remote.show(shown, size, SHARP_PASSES));
    });
  }

  private soon<T>(make: () => Promise<T | null>): Promise<T | null> {
    return new Promise((resolve) => {
      this.urgent.push(async () => {
        let made: T | null = null;
        try {
          made = await make();
        } finally {
          resolve(made);
        }
      });
      void this.work();
    });
  }

  private async work(): Promise<void> {
    if (this.working || this.closed) return;
    this.working = true;
    try {
      while (!this.closed) {
        const first = this.urgent.shift();
        if (first) {
          await first().catch(() => this.broken());
          continue;
        }
        const wish = this.paused ? null : this.nextWish();
        if (!wish || this.failures > 3) return;
        const rest = AFTER_HAND - (performance.now() - this.handAt);
        if (rest > 0) {
          await new Promise((resolve) => setTimeout(resolve, rest));
          continue;
        }
        await this.draw(wish).catch(() => this.broken());
      }
    } finally {
      this.working = false;
    }
  }

  private nextWish(): AheadWish | null {
    while (this.next < this.wishes.length) {
      const wish = this.wishes[this.next]!;
      this.next += 1;
      if (!this.store.has(wish.key)) return wish;
    }
    return null;
  }

  private async draw({ picture: asked }: AheadWish): Promise<Blob | null> {
    const { key, picture: shown } = await asked();
    const kept = await this.orBroken(({ remote }) => remote.keep(shown, this.size));
    this.store.put(key, kept);
    this.failures = 0;
    this.onChange();
    return kept;
  }

  /** A worker that has failed is let go; the next frame begins with a new one. */
  private broken(): void {
    this.failures += 1;
    this.hand?.stop();
    this.hand = null;
  }

  private orBroken<T>(ask: (hand: Hand) => Promise<T>): Promise<T> {
    const hand = this.worker();
    return Promise.race([ask(hand), hand.broken]);
  }

  private worker(): Hand {
    if (this.hand) return this.hand;
    const worker = new Worker(new URL('../worker/ahead.worker.ts', import.meta.url), { type: 'module', name: 'ahead' });
    const broken = new Promise<never>((_, reject) =>
      worker.addEventListener('error', () => reject(new Error('The worker that draws ahead has stopped.'))),
    );
    broken.catch(() => undefined);
    this.hand = { remote: Comlink.wrap<AheadWorker>(worker), broken, stop: () => worker.terminate() };
    void this.hand.remote.setScenes(this.scenes);
    return this.hand;
  }

  close(): void {
    this.closed = true;
    this.hand?.stop();
    this.hand = null;
    for (const kind of ['pointerdown', 'pointermove', 'keydown', 'wheel'] as const)
      window.removeEventListener(kind, this.onInput, { capture: true });
  }
}
