import type { ProjectDocument } from '@eskovan/core/document';
import { z } from 'zod';
import type { NewShot } from './edit-reel.ts';

/** What is dragged from the list of moves and views carries this. */
export const DRAGGED = 'application/x-eskovan-shot';

const draggedSchema = z.object({ kind: z.enum(['move', 'view']), id: z.uuid() });
export type Dragged = z.infer<typeof draggedSchema>;

/** A shot of what was dropped; null where that is something else, or not there any more. */
export function readDragged(data: DataTransfer, document: Pick<ProjectDocument, 'move' | 'view'>): NewShot | null {
  let raw: unknown;
  try {
    raw = JSON.parse(data.getData(DRAGGED));
  } catch {
    return null;
  }
  const parsed = draggedSchema.safeParse(raw);
  return parsed.success ? shotOfRow(parsed.data, document) : null;
}

export function shotOfRow(
  { kind, id }: Dragged,
  { move, view }: Pick<ProjectDocument, 'move' | 'view'>,
): NewShot | null {
  const row = (kind === 'move' ? move : view).find((one) => one.id === id && one.deleted === null);
  if (!row) return null;
  return { name: row.name, use: kind === 'move' ? { kind, move: id, from: 0 } : { kind, view: id } };
}
