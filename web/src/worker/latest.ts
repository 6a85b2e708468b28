/** What was loaded last, kept for the next questions about it. */
export class Latest<T> {
  private held: { url: string; loading: Promise<T> } | null = null;
  constructor(private readonly load: (url: string) => Promise<T>) {}
  of(url: string): Promise<T> {
    if (this.held?.url === url) return this.held.loading;
    const loading = this.load(url);
    this.held = { url, loading };
    // The next question tries again.
    loading.catch(() => (this.held = null));
    return loading;
  }
}
