import type { AheadStore } from './ahead-store.ts';

/** So many addresses of pictures are held for being shown as images. */
const HELD = 1500;

/** Addresses of pictures that are drawn already, for lists and strips that show many of them. */
export class AheadImages {
  private readonly urls = new Map<string, string>();
  private readonly coming = new Set<string>();

  /** @param onChange tells that an address is there now */
  constructor(
    private readonly store: AheadStore,
    private readonly onChange: () => void,
  ) {}

  /** The address of a picture; null while it is not drawn, or not read yet. */
  url(key: string | undefined): string | null {
    if (!key) return null;
    const known = this.urls.get(key);
    if (known || this.coming.has(key) || !this.store.has(key)) return known ?? null;
    this.coming.add(key);
    void this.store.get(key).then((picture) => {
      this.coming.delete(key);
      if (!picture) return;
      this.urls.set(key, URL.createObjectURL(picture));
      if (this.urls.size > HELD) this.drop(this.urls.keys().next().value!);
      this.onChange();
    });
    return null;
  }

  private drop(key: string): void {
    URL.revokeObjectURL(this.urls.get(key)!);
    this.urls.delete(key);
  }

  close(): void {
    for (const key of [...this.urls.keys()]) this.drop(key);
  }
}
