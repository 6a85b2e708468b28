import { lengthNumber, type TravelPose } from '@eskovan/core/document';
import { anglesOf } from '@eskovan/core/geometry';
import { useLengthUnit } from '../kit/index.ts';
import type { How } from '../desk/selection.ts';
import { PlanHandle } from './plan-handle.tsx';
import { usePlan } from './plan.tsx';

interface PoseLayerProps {
  poses: readonly TravelPose[];
  chosen: readonly string[];
  onChoose: (id: string, how: How) => void;
  onMove: (id: string, x: number, z: number) => void;
  onDelete: (id: string) => void;
}

/** The kept poses of a travel on the plan: where the camera is, which way it looks, in which order. */
export function PoseLayer({ poses, chosen, onChoose, onMove, onDelete }: PoseLayerProps) {
  const { scale } = usePlan();
  const lengths = useLengthUnit();
  const r = 9 / scale;
  return poses.map(({ id, position: [x, , z], orientation }, i) => {
    const { pan } = anglesOf(orientation);
    const isChosen = chosen.includes(id);
    const tip = `${x - 2 * r * Math.sin(pan)} ${z - 2 * r * Math.cos(pan)}`;
    const wing = (turn: number) => `${x - r * Math.sin(pan + turn)} ${z - r * Math.cos(pan + turn)}`;
    return (
      <PlanHandle
        key={id}
        {...{ x, z }}
        label={`Pose ${i + 1}, at ${lengthNumber(x, lengths)}, ${lengthNumber(z, lengths)}`}
        pressed={isChosen}
        onChoose={(how) => onChoose(id, how)}
        onMove={(nx, nz) => onMove(id, nx, nz)}
        onDelete={() => onDelete(id)}
      >
        <path d={`M${tip}L${wing(1.1)}L${wing(-1.1)}Z`} fill="var(--indigo)" fillOpacity={0.55} />
        <circle
          cx={x}
          cy={z}
          r={r}
          fill={isChosen ? 'var(--indigo)' : 'var(--paper)'}
          stroke="var(--indigo)"
          strokeWidth={1.75}
          vectorEffect="non-scaling-stroke"
        />
        <text
          x={x}
          y={z + 4 / scale}
          fontSize={11 / scale}
          fontWeight="600"
          textAnchor="middle"
          fill={isChosen ? 'var(--paper)' : 'var(--indigo)'}
          pointerEvents="none"
        >
          {i + 1}
        </text>
      </PlanHandle>
    );
  });
}
