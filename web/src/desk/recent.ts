import { frameSchema, lensSchema, lightChoiceSchema, poseSchema, sameValues } from '@eskovan/core/document';
import { create } from 'zustand';
import { z } from 'zod';
import { safeJson } from '../data/api.ts';

const recentSchema = z.object({
  id: z.string(),
  pose: poseSchema,
  lens: lensSchema,
  light: lightChoiceSchema,
  frame: frameSchema.optional(),
  /** A small picture as a data address; null until it is drawn. */
  picture: z.string().max(40_000).nullable(),
});
/** A camera that was looked through for a while, and not kept. */
export type Recent = z.infer<typeof recentSchema>;

/** So many are remembered for a project. */
const MOST = 12;
const nameOf = (projectId: string) => `eskovan-recent-${projectId}`;

interface RecentState {
  projectId: string | null;
  /** The newest first. */
  list: readonly Recent[];
}

/** What was looked at in this browser and not kept; nothing of it is in the project. */
export const useRecent = create<RecentState>()(() => ({ projectId: null, list: [] }));

/** Takes up what a project's views were looked at from before. */
export function openRecent(projectId: string): void {
  if (useRecent.getState().projectId === projectId) return;
  const kept = z.array(recentSchema).safeParse(safeJson(localStorage.getItem(nameOf(projectId)) ?? '[]'));
  useRecent.setState({ projectId, list: kept.success ? kept.data.slice(0, MOST) : [] });
}

function change(projectId: string, to: (list: readonly Recent[]) => readonly Recent[]): void {
  openRecent(projectId);
  const list = to(useRecent.getState().list).slice(0, MOST);
  useRecent.setState({ list });
  // A browser that keeps nothing forgets them on reload: nothing else depends on it.
  try {
    localStorage.setItem(nameOf(projectId), JSON.stringify(list));
  } catch {
    return;
  }
}

/** Remembers a camera. One that was remembered as the same stays as it is. @returns its id, where it is new */
export function remember(projectId: string, camera: Omit<Recent, 'id' | 'picture'>): string | null {
  openRecent(projectId);
  const { list } = useRecent.getState();
  if (list.some(({ pose, lens }) => sameValues([pose, lens], [camera.pose, camera.lens]))) return null;
  const id = crypto.randomUUID();
  change(projectId, (now) => [{ ...camera, id, picture: null }, ...now]);
  return id;
}

export const forget = (projectId: string, id: string): void =>
  change(projectId, (list) => list.filter((one) => one.id !== id));

export const setRecentPicture = (projectId: string, id: string, picture: string): void =>
  change(projectId, (list) => list.map((one) => (one.id === id ? { ...one, picture } : one)));
