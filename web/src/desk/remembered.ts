import type { ZodType } from 'zod';
import { z } from 'zod';
import { create } from 'zustand';
import { safeJson } from '../data/api.ts';

interface Remembered<T> {
  projectId: string | null;
  list: readonly T[];
}

/**
 * A list that this browser remembers for a project, also after a reload; nothing of it is in the project.
 * @param most so many are remembered: the first of the list
 */
export function rememberedList<T>(name: string, schema: ZodType<T>, most: number) {
  const use = create<Remembered<T>>()(() => ({ projectId: null, list: [] }));
  const nameOf = (projectId: string) => `eskovan-${name}-${projectId}`;
  /** Takes up what was remembered before. */
  function open(projectId: string): void {
    if (use.getState().projectId === projectId) return;
    const kept = z.array(schema).safeParse(safeJson(localStorage.getItem(nameOf(projectId)) ?? '[]'));
    use.setState({ projectId, list: kept.success ? kept.data.slice(0, most) : [] });
  }
  function change(projectId: string, to: (list: readonly T[]) => readonly T[]): void {
    open(projectId);
    const list = to(use.getState().list).slice(0, most);
    use.setState({ list });
    // A browser that keeps nothing forgets them on reload: nothing else depends on it.
    try {
      localStorage.setItem(nameOf(projectId), JSON.stringify(list));
    } catch {
      return;
    }
  }
  return { use, open, change };
}
