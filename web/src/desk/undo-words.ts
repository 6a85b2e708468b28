import { toast } from 'sonner';
import { redo, undo } from '../data/undo.ts';

export function undoWithWords(projectId: string): void {
  const label = undo(projectId);
  if (label) toast(`Undone: ${label}`, { duration: 1800 });
}

export function redoWithWords(projectId: string): void {
  const label = redo(projectId);
  if (label) toast(`Done again: ${label}`, { duration: 1800 });
}
