import type { MoveBody, Rate } from '@eskovan/core/document';
import { standing, type CameraSample, type CompiledMove } from '@eskovan/core/move';
import { frameAt, frameTime } from '@eskovan/core/reel';
import { useMemo } from 'react';
import { useWorkbench, type Workbench } from '../../desk/workbench.ts';

/** What the picture of a move shows: the scout while there is one, else the camera at the time. */
export function moveSample(
  move: CompiledMove | null,
  body: MoveBody | null,
  { scout, time }: Pick<Workbench, 'scout' | 'time'>,
): CameraSample | null {
  if (scout && body) {
    const onPath = move?.sampleAt(time);
    return onPath ? { ...onPath, ...scout } : standing(scout, body.lens, time);
  }
  return move?.sampleAt(Math.min(time, move.duration)) ?? null;
}

/**
 * The same, following the time. Only small parts of the screen use it: it changes with every frame.
 * @param rate goes by whole frames of the film while it plays: each is the same picture whenever it is played
 */
export function useMoveSample(move: CompiledMove | null, body: MoveBody | null, rate?: Rate): CameraSample | null {
  const time = useWorkbench((state) =>
    rate && state.playing ? frameTime(frameAt(state.time, rate), rate) : state.time,
  );
  const scout = useWorkbench((state) => state.scout);
  return useMemo(() => moveSample(move, body, { scout, time }), [move, body, scout, time]);
}
