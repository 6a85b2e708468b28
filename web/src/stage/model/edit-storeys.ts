import type { ProjectBody, Row, StoreyChange } from '@eskovan/core/document';
import { CORRECTION_REACH } from '@eskovan/core/survey';
import { editBody } from '../../data/edit-row.ts';
import { isNameOf } from '../../site/names.ts';

/** The correction that made a storey what it is now; null where it is as it was found. */
export const changeOf = (changes: readonly StoreyChange[], elevation: number): StoreyChange | null =>
  changes.find((change) => change.elevation !== null && Math.abs(change.elevation - elevation) < 1e-6) ?? null;

/** The corrections with one storey at another height, or left out where `to` is null. */
export function withStorey(changes: readonly StoreyChange[], from: number, to: number | null): StoreyChange[] {
  const before = changeOf(changes, from);
  const rest = changes.filter((change) => change !== before);
  const found = before ? before.found : from;
  // An added storey that is left out is forgotten; one that was found and is moved back is as it was found.
  if (found === null) return to === null ? rest : [...rest, { found, elevation: to }];
  return to !== null && Math.abs(to - found) < 1e-6 ? rest : [...rest, { found, elevation: to }];
}

/** A height for another storey: a usual one above the highest. */
export const nextHeight = (elevations: readonly number[]): number =>
  elevations.length === 0 ? 0 : Math.round((Math.max(...elevations) + 3) * 100) / 100;

/** Does a height leave room between storeys? Two in one place are one. */
export const isFree = (elevations: readonly number[], height: number): boolean =>
  elevations.every((elevation) => Math.abs(elevation - height) >= CORRECTION_REACH);

/** Keeps other storeys than were found. A name goes with its storey. */
export function keepStoreys(
  project: Row<'project'>,
  label: string,
  change: (body: ProjectBody) => StoreyChange[],
  moved?: { from: number; to: number },
): void {
  editBody('project', project, label, (body) => ({
    ...body,
    storeyChanges: change(body),
    storeyNames: body.storeyNames.map((one) =>
      moved && isNameOf(one, moved.from) ? { ...one, elevation: moved.to } : one,
    ),
  }));
}
