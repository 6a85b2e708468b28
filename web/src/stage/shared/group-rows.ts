import { LONGEST_GROUP_NAME, type Kind, type Row } from '@eskovan/core/document';
import { bodyChanges, currentRows } from '../../data/edits.ts';
import { dispatch } from '../../data/undo.ts';
import { grouping, type GroupsOf } from './shelf-groups.ts';

const about = (some: readonly Row[]) => (some.length === 1 ? some[0]!.name : String(some.length));

/** Puts rows into a group, or out of any, as one step of undo. */
export function groupRows<K extends Kind>(
  kind: K,
  some: readonly Row<K>[],
  group: string | undefined,
  groups: GroupsOf<K>,
): void {
  const [first] = some;
  if (!first || kind === 'project') return;
  const list = currentRows(first.projectId, kind) as Row<K>[];
  const ids = some.map(({ id }) => id);
  const label = group === undefined ? `Out of the group: ${about(some)}` : `Into “${group}”: ${about(some)}`;
  dispatch(first.projectId, label, grouping(kind, list, ids, group, groups));
}

/** Gives a group another name. @param some all that are in it */
export function renameGroup<K extends Kind>(
  kind: K,
  some: readonly Row<K>[],
  typed: string,
  groups: GroupsOf<K>,
): void {
  const name = typed.trim().slice(0, LONGEST_GROUP_NAME);
  const [first] = some;
  const before = first && groups.of(first);
  if (!first || name === '' || name === before) return;
  dispatch(
    first.projectId,
    `Rename ${before}`,
    some.flatMap((row) => bodyChanges(kind, row, (body) => groups.with(body, name))),
  );
}
