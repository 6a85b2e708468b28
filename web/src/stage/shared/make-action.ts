import type { ActionBody, ProjectDocument } from '@eskovan/core/document';
import { liveRows } from '../../data/changes.ts';
import { makeRow } from '../../data/edit-row.ts';
import { orderAfter } from '../../data/order.ts';

/** Makes an action, after those that there are. Returns its id. */
export function makeAction(
  { project, action }: ProjectDocument,
  label: string,
  name: string,
  body: ActionBody,
): string {
  return makeRow('action', project.id, label, { name, order: orderAfter(liveRows(action)), body });
}
