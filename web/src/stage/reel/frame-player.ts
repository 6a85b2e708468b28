import type { PictureSize } from '@eskovan/render';
import type { AheadDesk, NamedPicture } from '../../picture/ahead.ts';

/** What is to be seen now. */
export interface ShownFrame {
  frame: number;
  /** Names of all frames. */
  keys: readonly string[];
  playing: boolean;
  /** At which size it is looked at, pixels. */
  size: PictureSize;
}

/** So many frames on are made ready while it plays. */
const READY = 8;
/** A frame that rests so long is drawn sharply, milliseconds. */
const REST = 450;

/**
 * Shows frames of a reel on a canvas: those that were drawn ahead at once, others as soon as they are drawn. While it plays
 * nothing waits: a frame that is not there is left out, and counted.
 */
export class FramePlayer {
  private readonly context: ImageBitmapRenderingContext;
  private readonly ready = new Map<string, Promise<ImageBitmap | null>>();
  private wanted: ShownFrame | null = null;
  private shownKey: string | null = null;
  /** Frames are asked for one after the other; the number of the last one, and of the one that is shown. */
  private asked = 0;
  private shown = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private played = 0;
  private late = 0;
  private last: number | null = null;
  private closed = false;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly desk: AheadDesk,
    private readonly pictureOf: (frame: number) => Promise<NamedPicture>,
    /** At which frames are kept, pixels. */
    private readonly size: PictureSize,
  ) {
    this.context = canvas.getContext('bitmaprenderer')!;
  }

  show(wanted: ShownFrame): void {
    const before = this.wanted;
    this.wanted = wanted;
    clearTimeout(this.timer);
    const { frame, keys, playing } = wanted;
    const key = keys[frame];
    if (!key) return;
    if (playing) this.count(frame, before?.playing ?? false);
    if (playing) this.makeReady(frame, keys);
    if (key !== this.shownKey) {
      this.canvas.dataset['sharp'] = 'false';
      void this.bring(key, frame);
    } else {
      // What was asked for before comes too late.
      this.shown = this.asked += 1;
      this.tell(frame);
    }
    if (!playing) this.timer = setTimeout(() => void this.sharpen(key, wanted), REST);
  }

  /** Frames that the clock has passed over are late as well. */
  private count(frame: number, was: boolean): void {
    if (!was) this.played = this.late = 0;
    else if (this.last !== null && frame !== this.last) {
      const gone = Math.abs(frame - this.last);
      this.played += gone;
      this.late += gone - 1;
    }
    this.last = frame;
    this.canvas.dataset['played'] = String(this.played);
    this.canvas.dataset['late'] = String(this.late);
  }

  private makeReady(frame: number, keys: readonly string[]): void {
    const next = new Set(Array.from({ length: READY }, (_, k) => keys[frame + k]).filter((key) => key !== undefined));
    for (const [key, bitmap] of this.ready)
      if (!next.has(key)) {
        this.ready.delete(key);
        void bitmap.then((image) => image?.close());
      }
    for (const key of next) if (!this.ready.has(key) && this.desk.store.has(key)) this.ready.set(key, this.read(key));
  }

  private async read(key: string): Promise<ImageBitmap | null> {
    const picture = await this.desk.store.get(key);
    return picture && createImageBitmap(picture).catch(() => null);
  }

  private async bring(key: string, frame: number): Promise<void> {
    const playing = this.wanted?.playing ?? false;
    const asked = (this.asked += 1);
    const held = this.ready.get(key);
    this.ready.delete(key);
    let bitmap = await (held ?? this.read(key));
    if (!bitmap && playing) {
      if (this.isWanted(key)) {
        this.late += 1;
        this.canvas.dataset['late'] = String(this.late);
      }
      return;
    }
    const wish = { key, size: this.size, picture: () => this.pictureOf(frame) };
    bitmap ??= await this.desk.glance(wish, () => this.isWanted(key));
    if (!bitmap) return;
    // What comes late must not replace what is newer; but something is better than nothing while one is dragging through.
    if (this.closed || asked < this.shown || (playing && !this.isNear(frame))) {
      bitmap.close();
      return;
    }
    this.shown = asked;
    this.put(bitmap, key, frame, false);
  }

  private isWanted(key: string): boolean {
    return !this.closed && this.wanted !== null && this.wanted.keys[this.wanted.frame] === key;
  }
  private isNear(frame: number): boolean {
    return this.wanted !== null && Math.abs(this.wanted.frame - frame) <= 1;
  }

  private put(bitmap: ImageBitmap, key: string, frame: number, sharp: boolean): void {
    this.context.transferFromImageBitmap(bitmap);
    this.shownKey = key;
    this.canvas.dataset['sharp'] = String(sharp);
    this.tell(frame);
  }

  private tell(frame: number): void {
    this.canvas.dataset['frame'] = String(frame);
  }

  private async sharpen(key: string, { frame, size }: ShownFrame): Promise<void> {
    if (!this.isWanted(key)) return;
    const ratio = Math.min(2, globalThis.devicePixelRatio || 1);
    const pixels = { width: Math.round(size.width * ratio), height: Math.round(size.height * ratio) };
    const bitmap = await this.desk.sharp(
      () => this.pictureOf(frame),
      pixels,
      () => this.isWanted(key) && !this.wanted!.playing,
    );
    if (!bitmap) return;
    if (this.isWanted(key) && !this.wanted!.playing) this.put(bitmap, key, frame, true);
    else bitmap.close();
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    for (const bitmap of this.ready.values()) void bitmap.then((image) => image?.close());
    this.ready.clear();
  }
}
