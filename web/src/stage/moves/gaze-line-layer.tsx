import type { GazeAlongLine } from '@eskovan/core/document';
import { deleteNode, moveNode, PlanCurve } from '@eskovan/core/path';
import { useMemo } from 'react';
import { chainToSvg } from '../../plan/path-layer.tsx';
import { PlanHandle } from '../../plan/plan-handle.tsx';
import { usePlan } from '../../plan/plan.tsx';

/** Half the size of a node's mark, pixels. */
const HALF = 5;

interface GazeLineLayerProps {
  gaze: GazeAlongLine;
  label: string;
  onPath: (change: (path: GazeAlongLine['path']) => GazeAlongLine['path']) => void;
}

/** A line that the eye goes along, on the plan: its nodes are dragged, moved by arrows, and deleted. */
export function GazeLineLayer({ gaze, label, onPath }: GazeLineLayerProps) {
  const { path } = gaze;
  const { scale } = usePlan();
  const line = useMemo(() => chainToSvg(new PlanCurve(path).chain), [path]);
  const r = HALF / scale;
  return (
    <>
      <path
        d={line}
        fill="none"
        stroke="var(--ochre)"
        strokeWidth={2}
        strokeDasharray="6 3"
        vectorEffect="non-scaling-stroke"
        pointerEvents="none"
        data-testid="gaze-line"
      />
      {path.nodes.map(({ id, x, z }, i) => (
        <PlanHandle
          key={id}
          x={x}
          z={z}
          label={`Line of the eye, ${label}, node ${i + 1}`}
          onMove={(nx, nz) => onPath((now) => ({ ...now, nodes: moveNode(now, id, nx, nz).nodes }))}
          {...(path.nodes.length > 1 && {
            onDelete: () => onPath((now) => ({ ...now, nodes: deleteNode(now, id).nodes })),
          })}
        >
          <rect
            x={x - r}
            y={z - r}
            width={2 * r}
            height={2 * r}
            transform={`rotate(45 ${x} ${z})`}
            fill="var(--paper)"
            stroke="var(--ochre)"
            strokeWidth={2 / scale}
          />
        </PlanHandle>
      ))}
    </>
  );
}
