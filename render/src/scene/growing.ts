/** A typed array that grows: a million numbers take a fraction of the memory and time of a plain list. */
export class Growing<T extends Float32Array | Uint8Array | Int16Array | Uint16Array | Uint32Array> {
  /** Write into it only what {@link take} has made room for. */
  array: T;
  length = 0;

  /** @param room for so many numbers at first */
  constructor(
    private readonly make: (size: number) => T,
    room = 96,
  ) {
    this.array = make(room);
  }

  /** Adds one number. */
  push(value: number): void {
    // Making room may make another array: it is asked for after that.
    const at = this.take(1);
    this.array[at] = value;
  }

  /** Makes room for `count` more; returns where they begin in `array`, which may be another one then. */
  take(count: number): number {
    const at = this.length;
    const needed = at + count;
    if (needed > this.array.length) {
      const larger = this.make(Math.max(needed, this.array.length * 2));
      larger.set(this.array as never);
      this.array = larger;
    }
    this.length = needed;
    return at;
  }

  /** What was added; nothing may be added afterwards. */
  done(): T {
    return this.length === this.array.length ? this.array : (this.array.slice(0, this.length) as T);
  }
}

export const floats = (room?: number) => new Growing((size) => new Float32Array(size), room);
export const bytes = (room?: number) => new Growing((size) => new Uint8Array(size), room);
export const shorts = (room?: number) => new Growing((size) => new Int16Array(size), room);
/** Half floats, as their bits. */
export const halves = (room?: number) => new Growing((size) => new Uint16Array(size), room);
export const integers = (room?: number) => new Growing((size) => new Uint32Array(size), room);
