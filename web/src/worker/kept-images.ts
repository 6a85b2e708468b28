/** So many kept pictures are held ready. */
const HELD = 8;

/** Pictures that people brought, by their SHA-256, read once. */
export class KeptImages {
  private readonly held = new Map<string, Promise<ImageBitmap | null>>();

  of(sha256: string): Promise<ImageBitmap | null> {
    const known = this.held.get(sha256);
    if (known) return known;
    const loading = fetch(`/api/files/${sha256}`)
      .then(async (reply) => (reply.ok ? createImageBitmap(await reply.blob()) : null))
      .catch(() => null);
    this.held.set(sha256, loading);
    const oldest = this.held.keys().next().value;
    if (this.held.size > HELD && oldest) this.held.delete(oldest);
    return loading;
  }
}
