import { create } from 'zustand';

/** What would be lost or broken off if the page closed now, in words. */
export const useUnfinished = create<{ works: Readonly<Record<string, string>> }>()(() => ({ works: {} }));

/** Says that something is under way; call what it returns when it has ended. */
export function workUnderWay(what: string): () => void {
  const id = crypto.randomUUID();
  useUnfinished.setState(({ works }) => ({ works: { ...works, [id]: what } }));
  return () => useUnfinished.setState(({ works: { [id]: _, ...works } }) => ({ works }));
}
