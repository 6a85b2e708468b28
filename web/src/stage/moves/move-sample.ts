import type { MoveBody } from '@eskovan/core/document';
import type { CameraSample, CompiledWalk } from '@eskovan/core/move';
import { useMemo } from 'react';
import { useWorkbench, type Workbench } from '../../desk/workbench.ts';

/** What the picture of a move shows: the scout while there is one, else the camera at the time. */
export function moveSample(
  walk: CompiledWalk | null,
  body: MoveBody | null,
  { scout, time }: Pick<Workbench, 'scout' | 'time'>,
): CameraSample | null {
  if (scout && body) return { ...scout, lens: body.lens, time };
  return walk?.sampleAt(Math.min(time, walk.duration)) ?? null;
}

/** The same, following the time. Only small parts of the screen use it: it changes with every frame. */
export function useMoveSample(walk: CompiledWalk | null, body: MoveBody | null): CameraSample | null {
  const time = useWorkbench((state) => state.time);
  const scout = useWorkbench((state) => state.scout);
  return useMemo(() => moveSample(walk, body, { scout, time }), [walk, body, scout, time]);
}
