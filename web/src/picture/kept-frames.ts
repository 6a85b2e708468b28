/** A picture that is held, and what it takes. */
interface Kept {
  bitmap: ImageBitmap;
  bytes: number;
}

/** So much may be held: about half a minute at full size, several minutes as it is drawn in passing. */
const MOST_BYTES = 256 * 2 ** 20;
const BYTES_A_PIXEL = 4;

/**
 * Frames that were drawn while something played, so that it plays smoothly the second time. Finer pictures of a frame take
 * the place of coarser ones; where there are too many, those go that were drawn first.
 */
export class KeptFrames {
  private readonly frames = new Map<number, Kept>();
  private bytes = 0;
  /** Counts what has been shown: a copy that arrives after it was cleared is of something else. */
  private round = 0;

  /** @param copy makes another picture of the same @param most bytes that may be held */
  constructor(
    private readonly copy: (bitmap: ImageBitmap) => Promise<ImageBitmap> = (bitmap) => createImageBitmap(bitmap),
    private readonly most = MOST_BYTES,
  ) {}

  get size(): number {
    return this.frames.size;
  }

  /**
   * A picture of a frame for whoever shows it, who closes it; null where none is held.
   * @param width pixels that it must have at least
   */
  get(frame: number, width = 0): Promise<ImageBitmap> | null {
    const kept = this.frames.get(frame);
    return kept && kept.bitmap.width >= width ? this.copy(kept.bitmap) : null;
  }

  /** Holds a copy of a frame's picture, unless a finer one is held. The picture itself may be used up meanwhile. */
  async keep(frame: number, bitmap: ImageBitmap): Promise<void> {
    const bytes = BYTES_A_PIXEL * bitmap.width * bitmap.height;
    if (bytes <= (this.frames.get(frame)?.bytes ?? 0)) return;
    const { round } = this;
    // Without room for a copy it is drawn again another time.
    const copied = await this.copy(bitmap).catch(() => null);
    if (!copied) return;
    if (round !== this.round || bytes <= (this.frames.get(frame)?.bytes ?? 0)) return copied.close();
    this.drop(frame);
    this.frames.set(frame, { bitmap: copied, bytes });
    this.bytes += bytes;
    for (const first of this.frames.keys()) {
      if (this.bytes <= this.most) break;
      this.drop(first);
    }
  }

  /** Something else is shown from now on. */
  clear(): void {
    this.round += 1;
    for (const frame of [...this.frames.keys()]) this.drop(frame);
  }

  private drop(frame: number): void {
    const kept = this.frames.get(frame);
    if (!kept) return;
    kept.bitmap.close();
    this.bytes -= kept.bytes;
    this.frames.delete(frame);
  }
}
