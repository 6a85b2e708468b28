import { frameSchema, lensSchema, lightChoiceSchema, poseSchema, sameValues } from '@eskovan/core/document';
import { z } from 'zod';
import { rememberedList } from './remembered.ts';

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
const remembered = rememberedList('recent', recentSchema, MOST);

/** What was looked at in this browser and not kept, the newest first. */
export const useRecent = remembered.use;
export const openRecent = remembered.open;
const { change } = remembered;

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
