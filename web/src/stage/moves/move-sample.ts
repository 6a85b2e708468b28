import type { MoveBody } from '@eskovan/core/document';
import { standing, type CameraSample, type CompiledMove } from '@eskovan/core/move';
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

/** The same, following the time. Only small parts of the screen use it: it changes with every frame. */
export function useMoveSample(move: CompiledMove | null, body: MoveBody | null): CameraSample | null {
  const time = useWorkbench((state) => state.time);
  const scout = useWorkbench((state) => state.scout);
  return useMemo(() => moveSample(move, body, { scout, time }), [move, body, scout, time]);
}
