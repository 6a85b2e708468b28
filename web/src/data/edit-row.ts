import { isHeld, type BodyOf, type Kind, type Row } from '@eskovan/core/document';
import { toast } from 'sonner';
import { changing, making, removing } from './changes.ts';
import { currentRow } from './edits.ts';
import { dispatch } from './undo.ts';

/** Changes the body of a row as it is at this instant, as one step of undo. One that is locked stays as it is, and says so. */
export function editBody<K extends Kind>(
  kind: K,
  { projectId, id }: Pick<Row<K>, 'projectId' | 'id'>,
  label: string,
  change: (body: BodyOf<K>) => BodyOf<K>,
): void {
  const row = currentRow(projectId, kind, id);
  if (!row) return;
  const body = change(row.body);
  if (isHeld(kind, row.body, body)) sayLocked(row);
  else dispatch(projectId, label, changing(kind, row, { body }));
}

/** Says why something stays as it is. */
export const sayLocked = ({ name }: Pick<Row, 'name'>): void =>
  void toast(`${name} is locked. Unlock it to change it.`, { id: 'locked' });

/** Gives a row another name or place in its list. */
export function editRow<K extends Kind>(
  kind: K,
  { projectId, id }: Pick<Row<K>, 'projectId' | 'id'>,
  label: string,
  values: { name?: string; order?: number; body?: BodyOf<K> },
): void {
  const row = currentRow(projectId, kind, id);
  if (row) dispatch(projectId, label, changing(kind, row, values));
}

/** Makes a row. Returns its id. */
export function makeRow<K extends Kind>(
  kind: K,
  projectId: string,
  label: string,
  values: { name: string; order: number; body: BodyOf<K> },
): string {
  const id = crypto.randomUUID();
  dispatch(projectId, label, [making(kind, { id, ...values })]);
  return id;
}

export const removeRow = (kind: Kind, { projectId, id, name }: Row): void =>
  dispatch(projectId, `Delete ${name}`, [removing(kind, id)]);
