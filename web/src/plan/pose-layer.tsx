import type { TravelPose } from '@eskovan/core/document';
import { anglesOf } from '@eskovan/core/geometry';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';
import { howOf, type How } from '../desk/selection.ts';
import { useHeldKey } from '../desk/use-held-key.ts';
import { FocusRing } from './focus-ring.tsx';
import { usePlan } from './plan.tsx';

interface PoseLayerProps {
  poses: readonly TravelPose[];
  chosen: readonly string[];
  onChoose: (id: string, how: How) => void;
  /** While dragging or with keys held; a drag is one gesture of many such calls. */
  onMove: (id: string, x: number, z: number) => void;
  onDelete: (id: string) => void;
}

/** The kept poses of a travel on the plan: where the camera is, which way it looks, in which order. */
export function PoseLayer(props: PoseLayerProps) {
  return props.poses.map((pose, i) => <PoseMark key={pose.id} pose={pose} number={i + 1} {...props} />);
}

/** A press that moves less than this is none, pixels. */
const STILL = 2;

function PoseMark({
  pose,
  number,
  chosen,
  onChoose,
  onMove,
  onDelete,
}: PoseLayerProps & { pose: TravelPose; number: number }) {
  const { scale, at } = usePlan();
  const hold = useHeldKey();
  const drag = useRef<{ dx: number; dz: number; x: number; z: number; gesture: Gesture | null } | null>(null);
  const [x, , z] = pose.position;
  const { pan } = anglesOf(pose.orientation);
  const isChosen = chosen.includes(pose.id);
  const r = 9 / scale;
  const tip = `${x - 2 * r * Math.sin(pan)} ${z - 2 * r * Math.cos(pan)}`;
  const wing = (turn: number) => `${x - r * Math.sin(pan + turn)} ${z - r * Math.cos(pan + turn)}`;
  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    const held = drag.current;
    if (!held) return;
    const [px, pz] = at(event);
    const [nx, nz] = [px + held.dx, pz + held.dz];
    if (!held.gesture && Math.hypot(nx - held.x, nz - held.z) * scale < STILL) return;
    held.gesture ??= beginEdit();
    if (held.gesture.open) onMove(pose.id, nx, nz);
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>) => {
    const step = event.shiftKey ? 1 : 0.1;
    const way: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const by = way[event.key];
    if (by && !event.altKey && !event.ctrlKey) {
      hold.onKeyDown(event);
      onMove(pose.id, x + by[0], z + by[1]);
    } else if (event.key === 'Delete' || event.key === 'Backspace') onDelete(pose.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Pose ${number}, at ${x.toFixed(2)}, ${z.toFixed(2)}`}
      aria-pressed={isChosen}
      className="plan-hand"
      style={{ cursor: 'move' }}
      onFocus={() => !isChosen && onChoose(pose.id, 'only')}
      onKeyDown={onKeyDown}
      onKeyUp={hold.onKeyUp}
      onBlur={hold.onBlur}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        const [px, pz] = at(event);
        drag.current = { dx: x - px, dz: z - pz, x, z, gesture: null };
        if (!isChosen || howOf(event) !== 'only') onChoose(pose.id, howOf(event));
      }}
      onPointerMove={onPointerMove}
      onPointerUp={(event) => {
        onPointerMove(event);
        drag.current?.gesture?.commit();
        drag.current = null;
      }}
      onPointerCancel={() => {
        drag.current?.gesture?.cancel();
        drag.current = null;
      }}
    >
      <FocusRing x={x} z={z} scale={scale} />
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
        {number}
      </text>
    </g>
  );
}
