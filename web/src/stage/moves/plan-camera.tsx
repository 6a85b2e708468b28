import type { MoveBody } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { MovingCamera } from '../../plan/camera-mark.tsx';
import { useMoveSample } from './move-sample.ts';

interface PlanCameraProps {
  move: CompiledMove | null;
  body: MoveBody | null;
  aspect: number;
}

/** The camera on the plan, following the time. */
export function PlanCamera({ move, body, aspect }: PlanCameraProps) {
  const sample = useMoveSample(move, body);
  return sample && <MovingCamera sample={sample} aspect={aspect} />;
}
