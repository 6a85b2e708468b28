import { PACE_LIMITS, type Pace, type WayAnchor } from '../document/index.ts';

/** What of a mark, a pause or a pin may be changed; what an item does not have is left out. */
export interface PaceItemChange {
  anchor?: WayAnchor;
  /** Of a mark, metres. */
  length?: number;
  /** Of a mark, m/s. */
  speed?: number;
  /** Of a pause. */
  seconds?: number;
  /** Of a pin, seconds. */
  time?: number;
}

const LISTS = ['marks', 'pauses', 'pins'] as const;

/** Changes a mark, a pause or a pin, within what a pace may say. */
export function changePaceItem(pace: Pace, id: string, change: PaceItemChange): Pace {
  const { length, speed, seconds, time, ...others } = change;
  const kept = {
    ...others,
    ...(length !== undefined && { length: within(length, PACE_LIMITS.length) }),
    ...(speed !== undefined && { speed: within(speed, PACE_LIMITS.speed) }),
    ...(seconds !== undefined && { seconds: within(seconds, PACE_LIMITS.pause) }),
    ...(time !== undefined && { time: within(time, PACE_LIMITS.pin) }),
  };
  return inLists(pace, (items) => items.map((item) => (item.id === id ? { ...item, ...kept } : item)));
}

export const removePaceItem = (pace: Pace, id: string): Pace =>
  inLists(pace, (items) => items.filter((item) => item.id !== id));

const within = (value: number, [least, most]: readonly [number, number]) => Math.min(most, Math.max(least, value));

/** The same done in every list that a pace has. */
function inLists(pace: Pace, change: <T extends { id: string }>(items: readonly T[]) => T[]): Pace {
  return LISTS.reduce((made, list) => {
    const items = made[list];
    return items ? { ...made, [list]: change<{ id: string }>(items) } : made;
  }, pace);
}
