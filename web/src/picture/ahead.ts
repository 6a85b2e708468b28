import type { PictureSize, ReelPicture } from '@eskovan/render';
import type { AheadWorker } from '../worker/ahead.worker.ts';
import { handOf, type Hand } from '../worker/hand.ts';
import { BrowserAheadStore, type AheadStore } from './ahead-store.ts';
import type { PictureScene } from './source.ts';
import { startWorker } from '../worker/start-worker.ts';

/** What a frame shows, by its name. */
export interface NamedPicture {
  key: string;
  picture: ReelPicture;
}

/** A frame that may be drawn: its name, and what it shows, asked when its turn comes: by then it may be another. */
export interface AheadWish {
  key: string;
  /** At which it is kept, pixels. */
  size: PictureSize;
  picture: () => Promise<NamedPicture>;
}

/** Frames that are to be drawn, the first first. Of a long reel there are many: each is made when it is asked for. */
export interface AheadWishes {
  count: number;
  keyOf: (i: number) => string;
  wishOf: (i: number) => AheadWish;
}
export const NO_WISHES: AheadWishes = {
  count: 0,
  keyOf: () => '',
  wishOf: () => {
    throw new RangeError('nothing is wished for');
  },
};

/** Whose frames they are: those of the reel that is open, and of one that it is compared with. */
export type WishedFor = 'open' | 'beside';

/** Frames to be drawn, and how far it has come. */
interface WishList {
  wishes: AheadWishes;
  next: number;
}

/** A picture that rests, to be sharpened. */
interface Resting {
  picture: () => Promise<NamedPicture>;
  size: PictureSize;
  stillWanted: () => boolean;
  done: (made: ImageBitmap | null) => void;
}

const OTHER: Record<WishedFor, WishedFor> = { open: 'beside', beside: 'open' };
/** A worker that has failed more often in a row is not tried again. */
const MOST_FAILURES = 3;
/** After a hand has done something nothing is drawn ahead for so long, milliseconds: the machine belongs to the hand. */
const AFTER_HAND = 400;
/** Passes of a frame that is looked at. */
const SHARP_PASSES = 5;

/** What tells of a hand; a list that is pulled by its bar says nothing else. */
const HANDS = ['pointerdown', 'pointermove', 'keydown', 'wheel', 'scroll'] as const;

/**
 * Draws frames of a reel before they are looked at, and keeps them by what they show. What somebody waits for comes first,
 * then what is wanted, in its order; one frame at a time, so that nobody waits for more than one.
 */
export class AheadDesk {
  readonly store: AheadStore;
  private hand: Hand<AheadWorker> | null = null;
  private readonly lists: Record<WishedFor, WishList> = {
    open: { wishes: NO_WISHES, next: 0 },
    beside: { wishes: NO_WISHES, next: 0 },
  };
  /** Whose turn it is, where both wish for something. */
  private turn: WishedFor = 'open';
  private urgent: (() => Promise<void>)[] = [];
  private working = false;
  private closed = false;
  private paused = false;
  private handAt = -Infinity;
  private pressedAt = -Infinity;
  private readonly resting: Resting[] = [];
  private sharpening = false;
  private wake = () => {};
  private failures = 0;
  private readonly scenes: Record<WishedFor, Readonly<Record<string, PictureScene>>> = { open: {}, beside: {} };
  private readonly onInput = ({ type }: Event) => {
    this.handAt = performance.now();
    if (type === 'pointermove') return;
    this.pressedAt = this.handAt;
    this.giveWay();
  };

  /** @param onChange tells that more is there */
  constructor(
    private readonly onChange: () => void,
    store?: AheadStore,
  ) {
    this.store = store ?? new BrowserAheadStore(onChange);
    for (const kind of HANDS) window.addEventListener(kind, this.onInput, { passive: true, capture: true });
  }

  setScenes(scenes: Readonly<Record<string, PictureScene>>, of: WishedFor = 'open'): void {
    this.scenes[of] = scenes;
    void this.hand?.remote.setScenes(this.allScenes);
    this.failures = 0;
    void this.work();
  }

  /** What is to be drawn, the first first; what is there already is left out. */
  want(wishes: AheadWishes, of: WishedFor = 'open'): void {
    this.lists[of] = { wishes, next: 0 };
    void this.work();
  }

  private get allScenes(): Readonly<Record<string, PictureScene>> {
    return { ...this.scenes.beside, ...this.scenes.open };
  }

  /** While something is played, only what was asked for urgently is drawn. */
  pause(paused: boolean): void {
    if (this.paused === paused) return;
    this.paused = paused;
    if (!paused) void this.work();
  }

  /** One frame now, small; null where it cannot be drawn. */
  now(wish: AheadWish): Promise<Blob | null> {
    return this.soon(async () => {
      const known = await this.store.get(wish.key);
      return known ?? this.draw(wish);
    });
  }

  /**
   * One frame now, for a passing look: as it is kept, or, where it is not drawn yet, as quickly as this machine can. It is
   * not kept.
   * @param stillWanted asked when its turn comes: of frames that a hand runs over only the last one is drawn
   * @returns null where it is not wanted any more, or cannot be drawn
   */
  glance(wish: AheadWish, stillWanted: () => boolean): Promise<ImageBitmap | null> {
    return this.soon(async () => {
      if (!stillWanted()) return null;
      const known = await this.store.get(wish.key);
      if (known) return createImageBitmap(known).catch(() => null);
      const { picture } = await wish.picture();
      const made = await this.orBroken(({ remote }) => remote.glance(picture, wish.size));
      this.failures = 0;
      return made;
    });
  }

  /**
   * One frame at the size that it is looked at, sharp: when hands rest. Whatever is waited for meanwhile comes first; then
   * it is begun anew.
   * @param stillWanted asked when its turn comes
   * @returns null where it is not wanted any more, or cannot be drawn
   */
  sharp(
    picture: () => Promise<NamedPicture>,
    size: PictureSize,
    stillWanted: () => boolean,
  ): Promise<ImageBitmap | null> {
    return new Promise((resolve) => {
      this.resting.push({ picture, size, stillWanted, done: resolve });
      void this.work();
    });
  }

  /** Draws what rests, or leaves it for later, when something else comes first. */
  private async sharpen(resting: Resting): Promise<void> {
    const { picture, size, stillWanted, done } = resting;
    let made: ImageBitmap | null = null;
    let left = false;
    try {
      if (!stillWanted()) return;
      const { picture: shown } = await picture();
      this.sharpening = true;
      made = await this.orBroken(({ remote }) => remote.show(shown, size, SHARP_PASSES));
      left = made === null && stillWanted();
    } finally {
      this.sharpening = false;
      if (!left) {
        if (this.resting[0] === resting) this.resting.shift();
        done(made);
      }
    }
  }

  /** What is being sharpened is left: something else is waited for. */
  private giveWay(): void {
    if (this.sharpening) void this.hand?.remote.giveWay();
  }

  private soon<T>(make: () => Promise<T | null>): Promise<T | null> {
    this.giveWay();
    this.wake();
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
        const [resting] = this.resting;
        const wish = this.paused ? null : this.nextWish();
        if ((!resting && !wish) || this.failures > MOST_FAILURES) return;
        // A hand that only goes over the page does not keep a picture from becoming sharp.
        const left = AFTER_HAND - (performance.now() - (resting ? this.pressedAt : this.handAt));
        if (left > 0) {
          await this.wait(left);
          continue;
        }
        if (resting) {
          await this.sharpen(resting).catch(() => this.broken());
          continue;
        }
        if (!wish) continue;
        this.lists[this.turn].next += 1;
        this.turn = OTHER[this.turn];
        await this.draw(wish).catch(() => this.broken());
      }
    } finally {
      this.working = false;
      if (this.closed || this.failures > MOST_FAILURES) {
        for (const { done } of this.resting.splice(0)) done(null);
      }
    }
  }

  /** Until so many milliseconds are over, or something is waited for. */
  private wait(milliseconds: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, milliseconds);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  /** The first wish that is not there yet; it stays the next one until it is taken up. */
  private nextWish(): AheadWish | null {
    const first = this.nextOf(this.turn);
    if (first) return first;
    this.turn = OTHER[this.turn];
    return this.nextOf(this.turn);
  }

  private nextOf(of: WishedFor): AheadWish | null {
    const list = this.lists[of];
    const { count, keyOf, wishOf } = list.wishes;
    while (list.next < count && this.store.has(keyOf(list.next))) list.next += 1;
    return list.next < count ? wishOf(list.next) : null;
  }

  private async draw({ picture: asked, size }: AheadWish): Promise<Blob | null> {
    const { key, picture: shown } = await asked();
    const kept = await this.orBroken(({ remote }) => remote.keep(shown, size));
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

  private orBroken<T>(ask: (hand: Hand<AheadWorker>) => Promise<T>): Promise<T> {
    const hand = this.worker();
    return Promise.race([ask(hand), hand.stopped]);
  }

  private worker(): Hand<AheadWorker> {
    if (this.hand) return this.hand;
    const worker = startWorker('ahead');
    this.hand = handOf(worker, 'The worker that draws ahead');
    void this.hand.remote.setScenes(this.allScenes);
    return this.hand;
  }

  close(): void {
    this.closed = true;
    this.wake();
    this.hand?.stop();
    this.hand = null;
    for (const kind of HANDS) window.removeEventListener(kind, this.onInput, { capture: true });
  }
}
