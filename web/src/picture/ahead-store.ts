/** Pictures that were drawn before somebody looks at them, by what they show. */
export interface AheadStore {
  has(key: string): boolean;
  get(key: string): Promise<Blob | null>;
  put(key: string, picture: Blob): void;
}

/** The browser keeps them under this name, at most so many: some hundreds of megabytes. */
const CACHE = 'drawn-ahead-1';
const MOST = 12_000;
const urlOf = (key: string) => `/drawn-ahead/${key}`;

/**
 * Pictures in memory, and in the browser's own store, so that they are there after a reload. What the browser will not
 * keep is in memory all the same.
 */
export class BrowserAheadStore implements AheadStore {
  private readonly memory = new Map<string, Blob>();
  private readonly onDisk = new Set<string>();
  private cache: Cache | null = null;

  /** @param onKnown tells once it is known what is there already */
  constructor(onKnown: () => void) {
    void this.open().then(onKnown, () => undefined);
  }

  private async open(): Promise<void> {
    if (!('caches' in globalThis)) return;
    this.cache = await caches.open(CACHE);
    const requests = await this.cache.keys();
    // The oldest come first.
    const gone = requests.slice(0, Math.max(0, requests.length - MOST));
    await Promise.all(gone.map((request) => this.cache!.delete(request)));
    for (const { url } of requests.slice(gone.length)) this.onDisk.add(new URL(url).pathname.split('/').at(-1)!);
  }

  has(key: string): boolean {
    return this.memory.has(key) || this.onDisk.has(key);
  }

  async get(key: string): Promise<Blob | null> {
    const held = this.memory.get(key);
    if (held) return held;
    if (!this.onDisk.has(key)) return null;
    const reply = await this.cache?.match(urlOf(key)).catch(() => undefined);
    if (!reply) {
      this.onDisk.delete(key);
      return null;
    }
    const picture = await reply.blob();
    this.memory.set(key, picture);
    return picture;
  }

  put(key: string, picture: Blob): void {
    this.memory.set(key, picture);
    void this.cache?.put(urlOf(key), new Response(picture)).then(
      () => this.onDisk.add(key),
      () => undefined,
    );
  }
}
