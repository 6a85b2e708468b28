import type { Movers } from '../action/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { roomOfEye, type Footing } from '../survey/index.ts';
import { addSpan, joinedCovers, stepsOver } from './cover.ts';
import { coverageOf, type CoveredStorey, type RoomCover } from './coverage.ts';

/** What is under no roof, as a row among rooms. */
export const OUTSIDE = 'Outside';

/** How long a shot shows every room, and the outside: where the camera is outside, it shows that. Times are seconds since its first frame. */
export function shotCover(
  shot: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  footing: Footing,
  storeys: readonly CoveredStorey[],
  aspect: number,
  movers: Movers | null = null,
): RoomCover[] {
  const outside: RoomCover = { room: OUTSIDE, storey: '', seen: 0, inside: 0, spans: [] };
  for (const { from, at, to } of stepsOver(shot.duration, Infinity)) {
    if (roomOfEye(shot.sampleAt(at).position, storeys)) continue;
    outside.seen += to - from;
    outside.inside += to - from;
    addSpan(outside.spans, [from, to]);
  }
  return [outside, ...coverageOf(shot, footing, storeys, aspect, movers)];
}

/** What shots show, one after the other: rooms of the same name on the same storey are one. */
export const joinCovers = (shots: readonly { start: number; cover: readonly RoomCover[] }[]): RoomCover[] =>
  joinedCovers(
    shots,
    ({ storey, room }) => `${storey}\n${room}`,
    (sum, { inside }) => {
      sum.inside += inside;
    },
  );
