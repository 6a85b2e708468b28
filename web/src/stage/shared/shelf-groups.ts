import type { Change, Kind, Row } from '@eskovan/core/document';
import { changing } from '../../data/changes.ts';
import { orderBetween } from '../../data/order.ts';

/** How rows of a kind belong to groups: each says the name of its own. */
export interface GroupsOf<K extends Kind> {
  of: (row: Row<K>) => string | undefined;
  with: (body: Row<K>['body'], group: string | undefined) => Row<K>['body'];
}

/** What a shelf draws: rows, and over those of a group that stand together its name. */
export type Entry<K extends Kind> =
  { heading: string; rows: readonly Row<K>[]; folded: boolean } | { heading: null; row: Row<K>; index: number };

/**
 * @param shown of all rows those that are listed
 * @param isFolded are the rows of a group put away under its heading?
 */
export function entriesOf<K extends Kind>(
  shown: readonly Row<K>[],
  all: readonly Row<K>[],
  of: (row: Row<K>) => string | undefined,
  isFolded: (group: string) => boolean,
): Entry<K>[] {
  const numbers = new Map(all.map(({ id }, i) => [id, i]));
  const entries: Entry<K>[] = [];
  for (let at = 0; at < shown.length;) {
    const group = of(shown[at]!);
    let end = at + 1;
    while (end < shown.length && of(shown[end]!) === group) end += 1;
    const rows = shown.slice(at, end);
    const folded = group !== undefined && isFolded(group);
    if (group !== undefined) entries.push({ heading: group, rows, folded });
    if (!folded) entries.push(...rows.map((row) => ({ heading: null, row, index: numbers.get(row.id)! })));
    at = end;
  }
  return entries;
}

/** The group of a row that has come to stand between two others: what both are in, or its own while that is beside it. */
export function groupBetween(own: string | undefined, before: string | undefined, after: string | undefined) {
  if (before === after) return before;
  return own === before || own === after ? own : undefined;
}

/** A row at another place in a list, in the group that it comes into there. */
export function movedTo<K extends Kind>(
  list: readonly Row<K>[],
  from: number,
  to: number,
  groups: GroupsOf<K> | undefined,
): Row<K> {
  const row = { ...list[from]!, order: orderBetween(list, from, to) };
  if (!groups) return row;
  const others = list.filter((_, i) => i !== from);
  const [before, after] = [others[to - 1], others[to]].map((other) => other && groups.of(other));
  const group = groupBetween(groups.of(row), before, after);
  return group === groups.of(row) ? row : { ...row, body: groups.with(row.body, group) };
}

/**
 * Puts rows into a group, or out of any: they come to stand after those that are in it already, else behind the group that
 * the first of them leaves, else where that stands.
 */
export function grouping<K extends Kind>(
  kind: K,
  list: readonly Row<K>[],
  ids: readonly string[],
  group: string | undefined,
  groups: GroupsOf<K>,
): Change[] {
  const some = list.filter((row) => ids.includes(row.id) && groups.of(row) !== group);
  const [first] = some;
  if (!first) return [];
  const rest = list.filter((row) => !some.includes(row));
  const inIt = (name: string | undefined) => (name === undefined ? [] : rest.filter((row) => groups.of(row) === name));
  const joined = inIt(group);
  const members = joined.length > 0 ? joined : inIt(groups.of(first));
  const place =
    members.length > 0 ? rest.indexOf(members.at(-1)!) + 1 : rest.filter((row) => row.order < first.order).length;
  const [before, after] = [rest[place - 1]?.order, rest[place]?.order];
  const low = before ?? (after ?? 0) - some.length - 1;
  const high = after ?? low + some.length + 1;
  return some.flatMap((row, i) =>
    changing(kind, row, {
      order: low + ((high - low) * (i + 1)) / (some.length + 1),
      body: groups.with(row.body, group),
    }),
  );
}

/** A name for a group that none has yet. */
export function newGroupName(taken: readonly (string | undefined)[]): string {
  let number = 1;
  while (taken.includes(`Group ${number}`)) number += 1;
  return `Group ${number}`;
}
