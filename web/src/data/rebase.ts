import { sameTarget, sameValues, type Change, type Clash, type Edit, type SetChange } from '@eskovan/core/document';

const isSet = (change: Change): change is SetChange => change.op === 'set';

/** Does a later edit need what an earlier one made? */
export const dependsOn = (later: Edit, earlier: Edit): boolean =>
  earlier.changes.some((made) => made.op === 'make' && later.changes.some(({ id }) => id === made.id));

/** Do two edits touch a row in common? */
export const shareRow = (a: Edit, b: Edit): boolean =>
  a.projectId === b.projectId && a.changes.some(({ id }) => b.changes.some((other) => other.id === id));

/**
 * A later edit as if an earlier one had never been made: what it changed on top of the earlier one's values it now
 * changes on top of what was there before.
 */
export function without(later: Edit, earlier: Edit): Edit {
  const gone = earlier.changes.filter(isSet);
  const done = new Set<SetChange>();
  const changes = later.changes.map((change) => {
    if (!isSet(change)) return change;
    const below = gone.find((one) => !done.has(one) && sameTarget(one, change) && sameValues(one.after, change.before));
    if (!below) return change;
    done.add(below);
    return { ...change, before: below.before };
  });
  return done.size > 0 ? { ...later, changes } : later;
}

/** The edit with what others have done meanwhile under it: sent again it takes their place, as the person decided. */
export function onTopOf(edit: Edit, clashes: readonly Clash[]): Edit {
  const deleted = [
    ...new Map(clashes.filter(({ reason }) => reason === 'deleted').map((one) => [one.id, one])).values(),
  ];
  const seen = new Set<Clash>();
  const changes = edit.changes.map((change) => {
    if (!isSet(change)) return change;
    const clash = clashes.find((one) => !seen.has(one) && one.id === change.id && sameFacets(one, change));
    if (!clash) return change;
    seen.add(clash);
    return { ...change, before: clash.current };
  });
  return { ...edit, changes: [...deleted.map(({ kind, id }): Change => ({ op: 'restore', kind, id })), ...changes] };
}

const sameFacets = ({ facet }: Clash, change: SetChange) =>
  facet !== null && facet.join('\n') === change.facet.join('\n');
