import type { BodyOf, Kind, Row } from '@eskovan/core/document';
import { currentRow, dispatch } from './edits.ts';

/** Changes the body of a row as it is at this instant, as one step of undo. */
export function editBody<K extends Kind>(
  kind: K,
  { projectId, id }: Pick<Row<K>, 'projectId' | 'id'>,
  label: string,
  change: (body: BodyOf<K>) => BodyOf<K>,
): void {
  const row = currentRow(projectId, kind, id) as Row<K> | undefined;
  if (row) dispatch(projectId, label, [{ op: 'change', kind, id, values: { body: change(row.body) } }]);
}
