import { Clip } from '@eskovan/render';

/** So many films are held open: two that are drawn over each other. */
const HELD = 2;

/** Films that people brought, by their SHA-256, as sources of pictures. */
export class KeptClips {
  private readonly held = new Map<string, Promise<Clip | null>>();

  /** What a film shows at a time, seconds; null where it cannot be had. Calls must follow each other. */
  async at(sha256: string, time: number): Promise<HTMLCanvasElement | OffscreenCanvas | null> {
    const clip = await this.of(sha256);
    return clip?.at(time).catch(() => null) ?? null;
  }

  private of(sha256: string): Promise<Clip | null> {
    const opened =
      this.held.get(sha256) ??
      Clip.open(new URL(`/api/files/${sha256}`, self.location.origin), 'the film').catch(() => null);
    // What was asked for last stands last.
    this.held.delete(sha256);
    this.held.set(sha256, opened);
    const [oldest] = this.held.keys();
    if (this.held.size > HELD && oldest !== undefined) {
      void this.held.get(oldest)!.then((clip) => clip?.close());
      this.held.delete(oldest);
    }
    // One that could not be had is tried again.
    void opened.then((clip) => clip === null && this.held.delete(sha256));
    return opened;
  }

  dispose(): void {
    for (const clip of this.held.values()) void clip.then((one) => one?.close());
    this.held.clear();
  }
}
