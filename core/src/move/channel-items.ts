import { ownName, type Gaze } from '../document/index.ts';
import { toDegrees } from '../geometry/index.ts';
import type { PaceProfile } from '../pace/index.ts';
import type { ChannelItem } from '../track/index.ts';

/** Pins that are met this closely are met, seconds: half a frame of 25 a second. */
const MET = 0.02;

/** Marks, pauses and pins of a pace, in the order of time. */
export function paceItems(
  { marks = [], pauses = [], pins = [], cruise }: PaceProfile,
  timeAt: (station: number) => number,
): ChannelItem[] {
  const items: ChannelItem[] = [
    ...marks.map(({ id, from, to, speed }) => ({
      id,
      kind: 'mark' as const,
      from: timeAt(from),
      to: timeAt(to),
      value: speed,
      about: speed > cruise - 1e-6 ? 'Quick' : 'Slow',
    })),
    ...pauses.map(({ id, from, seconds }) => ({
      id,
      kind: 'pause' as const,
      from,
      to: from + seconds,
      value: null,
      about: 'Pause',
    })),
    ...pins.map(({ id, time, reached }) => ({
      id,
      kind: 'pin' as const,
      from: reached,
      to: reached,
      value: null,
      about: Math.abs(reached - time) > MET ? `Pin for ${time.toFixed(2)} s, nearest possible` : 'Pin',
    })),
  ];
  return items.sort((a, b) => a.from - b.from);
}

/** What a gaze looks at, in a word or two. */
export function gazeText(gaze: Gaze): string {
  switch (gaze.kind) {
    case 'ahead':
      return 'Ahead';
    case 'object':
      return ownName(gaze.name);
    case 'point':
      return 'A place';
    case 'line':
      return 'Along a line';
    case 'recorded':
      return 'As recorded';
    case 'kept':
      return 'As kept';
    case 'bearing':
      return `Kept direction, ${(((toDegrees(-gaze.pan) % 360) + 360) % 360).toFixed(0)}°`;
  }
}
