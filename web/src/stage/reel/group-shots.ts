import type { ShotBody } from '@eskovan/core/document';
import { newGroupName } from '../shared/shelf-groups.ts';
import { reelNow, setBodies } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

const shotsNow = (open: OpenReel): OpenReel['shots'] => reelNow(open)?.shots ?? [];

/** The shots, and those that they are grouped with. */
export function withGroup(open: OpenReel, ids: readonly string[]): string[] {
  const shots = shotsNow(open);
  const groups = new Set(shots.flatMap(({ id, body }) => (ids.includes(id) && body.group ? [body.group] : [])));
  return shots
    .filter(({ id, body }) => ids.includes(id) || (body.group !== undefined && groups.has(body.group)))
    .map(({ id }) => id);
}

/** Shots that are moved together from now on. */
export function groupShots(open: OpenReel, ids: readonly string[]): void {
  if (ids.length < 2) return;
  const name = newGroupName(shotsNow(open).map(({ body }) => body.group));
  setGroup(open, `Group ${ids.length} shots`, ids, name);
}

/** Shots that are on their own again. A group of one is none. */
export function ungroupShots(open: OpenReel, ids: readonly string[]): void {
  const shots = shotsNow(open);
  const alone = shots.filter(({ id, body }) => {
    if (body.group === undefined || ids.includes(id)) return false;
    const others = shots.filter((other) => other.body.group === body.group && !ids.includes(other.id));
    return others.length === 1;
  });
  setGroup(open, 'Leave the group', [...ids, ...alone.map(({ id }) => id)], undefined);
}

/** Gives a group another name. */
export const renameGroup = (open: OpenReel, name: string, next: string): void =>
  setGroup(
    open,
    `Rename ${name}`,
    shotsNow(open)
      .filter(({ body }) => body.group === name)
      .map(({ id }) => id),
    next,
  );

function setGroup(open: OpenReel, label: string, ids: readonly string[], group: string | undefined): void {
  const bodies = shotsNow(open).flatMap(({ id, body: { group: before, ...body } }): [string, ShotBody][] =>
    ids.includes(id) && before !== group ? [[id, group === undefined ? body : { ...body, group }]] : [],
  );
  if (bodies.length > 0) setBodies(open, label, new Map(bodies));
}
