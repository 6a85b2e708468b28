/** A typed array that grows: a million numbers take a fraction of the memory and time of a plain list. */
export class Growing<T extends Float32Array | Uint8Array | Int16Array | Uint16Array | Uint32Array> {
  /** Write into it only what {@link take} has made room for. */
  array: T;
  length = 0;

  constructor(private readonly make: (size: number) => T) {
    this.array = make(96);
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

  done(): T {
    return this.array.slice(0, this.length) as T;
  }
}

export const floats = () => new Growing((size) => new Float32Array(size));
export const bytes = () => new Growing((size) => new Uint8Array(size));
export const shorts = () => new Growing((size) => new Int16Array(size));
/** Half floats, as their bits. */
export const halves = () => new Growing((size) => new Uint16Array(size));
export const integers = () => new Growing((size) => new Uint32Array(size));
