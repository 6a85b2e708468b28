import type { BodyOf, Kind } from './row.ts';

/**
 * Is a change not to be made, because the row is locked? A locked move changes in nothing, but that it is unlocked;
 * name and place in the list are not its own. Locked views keep their pose and lens, which is looked after where they are given.
 */
export function isHeld<K extends Kind>(kind: K, before: BodyOf<K>, after: BodyOf<K>): boolean {
  const locked = (body: BodyOf<K>) => kind === 'move' && 'locked' in body && body.locked === true;
  return locked(before) && locked(after) && before !== after;
}
