import type { CameraSample } from '@eskovan/core/move';
import { isFocused } from '@eskovan/core/optics';
import type { PictureSize } from '@eskovan/render';

export interface DrawnPicture {
  bitmap: ImageBitmap;
  triangles: number;
  /** Of a sharp one: how much of it is burnt out to white, 0…1. */
  burnt?: number;
}

type Draw = (sample: CameraSample, size: PictureSize, subframes: number) => Promise<DrawnPicture | null>;

interface PumpOptions {
  draw: Draw;
  /** A sharp picture that is being drawn may be left. */
  giveWay: () => void;
  /** Is every picture waited for? Then none gives up resolution to come sooner. */
  patient?: () => boolean;
  /**
   * A picture that was drawn before; null where there is none. Nothing is drawn instead of it.
   * @param width pixels that it must have at least
   */
  again?: (sample: CameraSample, width: number) => Promise<ImageBitmap> | null;
  /** Tells of each quick picture before it is shown, whether it still is or not. */
  drawn?: (bitmap: ImageBitmap, sample: CameraSample) => void;
  /** @param sample what it is a picture of @param burnt of a sharp one: how much of it is burnt out, 0…1 */
  show: (bitmap: ImageBitmap, sharp: boolean, sample: CameraSample, burnt: number) => void;
}

/** What is to be shown, numbered as it came. */
interface Wanted {
  sample: CameraSample;
  size: PictureSize;
  number: number;
  /** The same place as the sharp picture that is seen: only what is there has changed. */
  stays: boolean;
}

/** Rest after which the picture sharpens, milliseconds; and as many gaps between samples, where they come slowly. */
const REST = 320;
const GAPS = 2.5;
/** Samples farther apart than this are no movement, milliseconds. */
const MOVING = 600;
/**
 * Resolutions of a moving picture, as parts of the whole: where one takes longer than `slow`, the next coarser one is used,
 * where it takes less than `quick`, the finer one; milliseconds. The coarsest is for what else would not come twelve times
 * a second.
 */
const SCALES = [
  { part: 1, slow: 48, quick: 0 },
  { part: 0.75, slow: 48, quick: 17 },
  { part: 0.5, slow: 48, quick: 17 },
  { part: 0.35, slow: 68, quick: 17 },
  { part: 0.25, slow: Infinity, quick: 30 },
] as const;

/** The resolution to go on with. @param scale number of one, from fine to coarse @param took milliseconds in it */
export function nextScale(scale: number, took: number): number {
  const { slow, quick } = SCALES[scale]!;
  return took > slow ? scale + 1 : took < quick ? scale - 1 : scale;
}

/**
 * Passes of a picture that rests: fewer where a whole one takes longer than a screen's frame, so that it is sharp soon. With
 * fewer than four, edges show stairs.
 * @param pass what one takes, milliseconds
 */
export const sharpPasses = (pass: number): number => (pass > SCREEN_FRAME ? 4 : 6);

/** Passes of one that not all is sharp in, after those: with fewer, what is out of focus is seen several times over. */
const SOFT_PASSES = 24;

/** milliseconds */
const SCREEN_FRAME = 16;

/**
 * Feeds one canvas: always the newest sample, never a queue. While samples keep coming the picture is drawn plainly,
 * at a resolution that this machine can follow; when they stop it sharpens. Where the camera stays and what it sees becomes
 * another, as new light comes, no coarse picture takes the place of a sharp one.
 */
export class PicturePump {
  private wanted: Wanted | null = null;
  /** How many samples came, and the number of the one that is shown: none older takes its place. */
  private count = 0;
  private shown = 0;
  private busy = false;
  private sharpening = false;
  /** Begins small: how fast this machine draws is not known yet, and a first picture is waited for. */
  private scale = 2;
  /** What a pass of a whole picture takes, milliseconds; known by the last one. */
  private pass = 0;
  /** When the last sample came, and how far apart the last two of a movement were, milliseconds. */
  private came = -Infinity;
  private gap = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stopped = false;
  /** What the sharp picture is of that is seen; null while something moves. */
  private rests: Pick<Wanted, 'sample' | 'size'> | null = null;

  constructor(private readonly options: PumpOptions) {}

  show(sample: CameraSample, size: PictureSize): void {
    const now = performance.now();
    this.gap = now - this.came < MOVING ? now - this.came : 0;
    this.came = now;
    this.count += 1;
    clearTimeout(this.timer);
    if (this.sharpening) this.options.giveWay();
    const { rests } = this;
    const stays =
      this.gap === 0 &&
      rests?.sample === sample &&
      rests.size.width === size.width &&
      rests.size.height === size.height;
    const what = { sample, size, number: this.count, stays };
    const again = this.options.again?.(sample, this.options.patient?.() ? size.width : 0);
    if (again) {
      this.wanted = null;
      again.then(
        (bitmap) => this.put({ bitmap }, false, what),
        () => what.number === this.count && this.want(what),
      );
    } else this.want(what);
  }

  private want(what: Wanted): void {
    this.wanted = what;
    if (!this.busy) void this.work();
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
  }

  private async work(): Promise<void> {
    this.busy = true;
    let last: Wanted | null = null;
    try {
      while (this.wanted && !this.stopped) {
        last = this.wanted;
        this.wanted = null;
        const started = performance.now();
        const whole = last.stays || (this.options.patient?.() ?? false);
        const scale = whole ? 1 : SCALES[this.scale]!.part;
        const drawn = await this.options.draw(last.sample, scaled(last.size, scale), 1);
        const took = performance.now() - started;
        this.pass = took / scale ** 2;
        if (!whole) this.scale = nextScale(this.scale, took);
        if (!drawn) continue;
        this.options.drawn?.(drawn.bitmap, last.sample);
        this.put(drawn, false, last);
      }
    } finally {
      this.busy = false;
    }
    // On a slow machine the next sample of a movement takes a while to come: sharpening meanwhile would make it slower.
    if (last?.number === this.count) this.sharpenLater(last);
  }

  private sharpenLater(what: Wanted): void {
    this.timer = setTimeout(() => void this.sharpen(what), Math.max(REST, GAPS * this.gap));
  }

  private async sharpen(what: Wanted): Promise<void> {
    if (this.wanted || this.stopped) return;
    this.busy = this.sharpening = true;
    let gaveWay = false;
    try {
      for (const passes of this.passesOf(what)) {
        const drawn = await this.options.draw(what.sample, what.size, passes);
        gaveWay = drawn === null;
        // Something newer is on its way: the quick picture of that comes first.
        if (this.wanted) drawn?.bitmap.close();
        else if (drawn) this.put(drawn, true, what);
        if (this.wanted || gaveWay || this.stopped) break;
      }
    } finally {
      this.busy = this.sharpening = false;
    }
    if (this.wanted) void this.work();
    // It gave way to something that is no picture of its own: a thumbnail, or an outline.
    else if (gaveWay && !this.stopped) this.sharpenLater(what);
  }

  /** Passes of the pictures of something that rests, one after the other: a sharp one soon, and what is soft in it later. */
  private passesOf({ sample }: Wanted): number[] {
    if (!isFocused(sample.view)) return [sharpPasses(this.pass)];
    return this.rests?.sample === sample ? [SOFT_PASSES] : [sharpPasses(this.pass), SOFT_PASSES];
  }

  private put(
    { bitmap, burnt = 0 }: Pick<DrawnPicture, 'bitmap' | 'burnt'>,
    sharp: boolean,
    { sample, size, number, stays }: Wanted,
  ): void {
    if (this.stopped || number < this.shown) return bitmap.close();
    this.shown = number;
    if (sharp) this.rests = { sample, size };
    else if (!stays) this.rests = null;
    this.options.show(bitmap, sharp, sample, burnt);
  }
}

function scaled(size: PictureSize, by: number): PictureSize {
  const part = (n: number) => Math.max(2, Math.round(n * by));
  return {
    width: part(size.width),
    height: part(size.height),
    ...(size.frame ? { frame: { width: part(size.frame.width), height: part(size.frame.height) } } : {}),
  };
}
