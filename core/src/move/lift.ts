import type { Key } from '../document/index.ts';
import { raiseAbout, type Channel, type RaiseIds } from '../track/index.ts';
import type { CompiledMove } from './sample.ts';

/** A pull at the line of the eye lifts it so far to either side, metres along the way. */
export const LIFT_REACH = 1.5;

type Lifted = Channel & { track: NonNullable<Channel['track']> };

/** The line that lifts ride on; null where a move has none. */
export const liftLine = ({ channels }: CompiledMove): Lifted | null =>
  (channels.find(({ track }) => track?.name === 'lift') as Lifted | undefined) ?? null;

/** How high a move is lifted at a time, metres. */
export const liftAt = (line: Lifted, time: number): number => line.at(time) - (line.track.base?.(time) ?? 0);

/**
 * Keys of a lift that is pulled about a time: within {@link LIFT_REACH} to either side, what is farther away stays.
 * @param move as it was before the pull @param value metres, held within what a hand may give
 */
export function liftAbout(
  move: CompiledMove,
  keys: readonly Key[],
  ids: RaiseIds,
  time: number,
  value: number,
): readonly Key[] {
  const line = liftLine(move);
  const { path } = move;
  if (!line || !path) return keys;
  const { limits, step } = line.track;
  const station = path.stationAt(time);
  const ends = [
    path.timeAt(Math.max(0, station - LIFT_REACH)),
    path.timeAt(Math.min(path.length, station + LIFT_REACH)),
  ] as const;
  const lift = Math.min(limits[1], Math.max(limits[0], Math.round(value / step) * step));
  return raiseAbout(keys, ids, time, lift, ends, (at) => liftAt(line, at));
}
