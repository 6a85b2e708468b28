import type { MoveBody } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { useWorkbench } from '../../desk/workbench.ts';
import { Ghost, MovingCamera } from '../../plan/camera-mark.tsx';
import { useMoveSample } from './move-sample.ts';

interface PlanCameraProps {
  move: CompiledMove | null;
  body: MoveBody | null;
  aspect: number;
}

/** While it plays, the plan shows where the camera will be in so many seconds of watching. */
const AHEAD = [1, 2, 3];

/** The camera on the plan, following the time. */
export function PlanCamera({ move, body, aspect }: PlanCameraProps) {
  const sample = useMoveSample(move, body);
  const playing = useWorkbench((state) => state.playing);
  const playRate = useWorkbench((state) => state.playRate);
  const time = useWorkbench((state) => state.time);
  if (!sample) return null;
  const ahead = playing && move ? AHEAD.flatMap((seconds) => timeAhead(move, time + seconds * playRate)) : [];
  return (
    <>
      {ahead.map((then, i) => (
        <Ghost key={AHEAD[i]} sample={move!.sampleAt(then)} strength={1 - (i + 1) / (AHEAD.length + 1)} />
      ))}
      <MovingCamera sample={sample} aspect={aspect} />
    </>
  );
}

/** An instant of a move; none beyond its ends, unless it goes round. */
function timeAhead({ duration, loops }: CompiledMove, time: number): [] | [number] {
  if (loops) return [time - duration * Math.floor(time / duration)];
  return time >= 0 && time <= duration ? [time] : [];
}
