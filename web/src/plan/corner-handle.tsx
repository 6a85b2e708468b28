import { lengthText, MOST_ROUNDING, type Path } from '@eskovan/core/document';
import { roundedCorner, type RoundedCorner } from '@eskovan/core/path';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';
import { useLengthUnit } from '../kit/index.ts';
import { FocusRing } from './focus-ring.tsx';

interface CornerHandleProps {
  path: Path;
  /** The chosen node. */
  id: string;
  scale: number;
  at: (event: { clientX: number; clientY: number }) => [number, number];
  onRadius: (id: string, radius: number) => void;
}

/** What a key changes it by, and what it is rounded to, metres in a building. */
const [STEP, FINEST] = [0.1, 0.01];

/** Where a chosen corner begins to be rounded: pulled along its leg, it is rounded more or less. */
export function CornerHandle({ path, id, scale, at, onRadius }: CornerHandleProps) {
  const drag = useRef<{ corner: RoundedCorner; gesture: Gesture } | null>(null);
  const lengths = useLengthUnit();
  const corner = roundedCorner(path, id);
  const node = path.nodes.find((one) => one.id === id);
  if (!corner || !node) return null;
  const rounded = (radius: number) => {
    const parts = 1 / (FINEST * lengths.steps);
    return Math.round(radius * parts) / parts;
  };
  const pull = (event: PointerEvent<SVGGElement>) => {
    const held = drag.current;
    if (!held?.gesture.open) return;
    const [x, z] = at(event);
    const along = (x - node.x) * held.corner.dx + (z - node.z) * held.corner.dz;
    onRadius(id, rounded(Math.max(0, along) * held.corner.radiusPerMetre));
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>) => {
    const by = { ArrowUp: STEP, ArrowRight: STEP, ArrowDown: -STEP, ArrowLeft: -STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onRadius(id, rounded(Math.max(0, node.radius + by * lengths.steps)));
  };
  const r = 4.5 / scale;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Rounding of the corner"
      className="plan-hand"
      aria-valuemin={0}
      aria-valuemax={MOST_ROUNDING}
      aria-valuenow={node.radius}
      aria-valuetext={lengthText(node.radius, lengths)}
      style={{ cursor: 'grab' }}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { corner, gesture: beginEdit() };
      }}
      onPointerMove={pull}
      onPointerUp={(event) => {
        pull(event);
        drag.current?.gesture.commit();
        drag.current = null;
      }}
      onPointerCancel={() => {
        drag.current?.gesture.cancel();
        drag.current = null;
      }}
      onKeyDown={onKeyDown}
    >
      <circle cx={corner.x} cy={corner.z} r={11 / scale} fill="transparent" />
      <FocusRing x={corner.x} z={corner.z} scale={scale} />
      <path
        d={`M${corner.x} ${corner.z - r}L${corner.x + r} ${corner.z}L${corner.x} ${corner.z + r}L${corner.x - r} ${corner.z}Z`}
        fill="var(--paper)"
        stroke="var(--lagoon)"
        strokeWidth={1.75}
        vectorEffect="non-scaling-stroke"
      >
        <title>{`Rounded by ${lengthText(node.radius, lengths)}: pull for more or less`}</title>
      </path>
    </g>
  );
}
