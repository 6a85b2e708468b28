import { lengthNumber, type Path, type PathNode } from '@eskovan/core/document';
import { PlanCurve, STRIDE } from '@eskovan/core/path';
import { useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';
import { useHeldKey } from '../desk/use-held-key.ts';
import { howOf, type How } from '../desk/selection.ts';
import { useLengthUnit } from '../kit/index.ts';
import { CornerHandle } from './corner-handle.tsx';
import { FocusRing } from './focus-ring.tsx';
import { DRAWN } from './plan-hands.ts';
import { usePlan } from './plan.tsx';

interface PathLayerProps {
  path: Path;
  /** Of its line and its nodes. */
  colour?: string;
  /** Does a node lie on the storey shown? Others are drawn faint. */
  isShown: (node: PathNode) => boolean;
  /** The chosen nodes. */
  selectedNodes: readonly string[];
  /** Only shows: presses go through to the plan (while drawing). */
  passive?: boolean;
  onSelectNode: (id: string, how: How) => void;
  /** While dragging or with keys held; a drag is one gesture of many such calls. */
  onMoveNode: (id: string, x: number, z: number, reach: number) => void;
  onDeleteNode: (id: string) => void;
  onToggleNode: (id: string) => void;
  /** Rounds a corner, metres. */
  onRadius: (id: string, radius: number) => void;
  /** A press on the line between nodes. */
  onPressPath: (x: number, z: number) => void;
  onInsert: (x: number, z: number) => void;
  /** Stretches to mark as wrong, as SVG path data. */
  marked?: string;
}

/** SVG path data of a chain of Béziers: the very curve the camera walks. */
export function chainToSvg(chain: Float64Array): string {
  let d = '';
  for (let o = 0; o < chain.length; o += STRIDE) {
    if (o === 0 || chain[o] !== chain[o - 2] || chain[o + 1] !== chain[o - 1]) d += `M${chain[o]} ${chain[o + 1]}`;
    d += `C${chain[o + 2]} ${chain[o + 3]} ${chain[o + 4]} ${chain[o + 5]} ${chain[o + 6]} ${chain[o + 7]}`;
  }
  return d;
}

/** A path with its nodes. */
export function PathLayer(props: PathLayerProps) {
  const { path, isShown, selectedNodes, colour = 'var(--lagoon)' } = props;
  const { scale, at } = usePlan();
  const curve = useMemo(() => new PlanCurve(path), [path]);
  const { near, far } = useMemo(() => splitByStorey(curve, path.nodes, isShown), [curve, path.nodes, isShown]);
  const line = {
    fill: 'none',
    vectorEffect: 'non-scaling-stroke',
    strokeLinecap: 'round',
    strokeLinejoin: 'round',
  } as const;
  return (
    <g style={props.passive ? { pointerEvents: 'none' } : undefined}>
      <path d={far} {...line} stroke={colour} strokeOpacity={0.35} strokeWidth={2} strokeDasharray="2 5" />
      <path d={near} {...line} stroke="var(--paper)" strokeWidth={6} />
      <path d={near} {...line} stroke={colour} strokeWidth={2.5} data-testid="path" />
      {props.marked && <path d={props.marked} {...line} stroke="var(--madder)" strokeWidth={4} />}
      <path
        d={near + far}
        {...line}
        stroke="transparent"
        strokeWidth={14}
        style={{ cursor: 'copy' }}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.stopPropagation();
          props.onPressPath(...at(event));
        }}
        onDoubleClick={(event) => {
          event.stopPropagation();
          props.onInsert(...at(event));
        }}
      />
      {path.nodes.map((node, i) => (
        <NodeHandle
          key={node.id}
          node={node}
          index={i}
          faint={!isShown(node)}
          selected={selectedNodes.includes(node.id)}
          scale={scale}
          at={at}
          {...props}
        />
      ))}
      {selectedNodes.length === 1 && (
        <CornerHandle path={path} id={selectedNodes[0]!} {...{ scale, at }} onRadius={props.onRadius} />
      )}
    </g>
  );
}

/** Cuts the drawn curve into what belongs to the storey shown and what does not. */
function splitByStorey(
  curve: PlanCurve,
  nodes: readonly PathNode[],
  isShown: (node: PathNode) => boolean,
): { near: string; far: string } {
  const near: number[] = [];
  const far: number[] = [];
  curve.spanOfSegment.forEach((span, segment) => {
    const [a, b] = [nodes[span]!, nodes[(span + 1) % nodes.length]!];
    const list = isShown(a) || isShown(b) ? near : far;
    for (let k = 0; k < STRIDE; k += 1) list.push(curve.chain[segment * STRIDE + k]!);
  });
  return { near: chainToSvg(Float64Array.from(near)), far: chainToSvg(Float64Array.from(far)) };
}

interface NodeHandleProps extends PathLayerProps {
  node: PathNode;
  index: number;
  faint: boolean;
  selected: boolean;
  scale: number;
  at: (event: { clientX: number; clientY: number }) => [number, number];
}

function NodeHandle({
  node,
  index,
  faint,
  selected,
  scale,
  at,
  onSelectNode,
  onMoveNode,
  onDeleteNode,
  onToggleNode,
  colour = 'var(--lagoon)',
}: NodeHandleProps) {
  const drag = useRef<{ dx: number; dz: number; x: number; z: number; gesture: Gesture | null } | null>(null);
  const hold = useHeldKey();
  const lengths = useLengthUnit();
  const r = (selected ? 6 : 4.75) / scale;
  const shape = {
    fill: selected ? colour : 'var(--paper)',
    stroke: colour,
    strokeWidth: 1.75,
    vectorEffect: 'non-scaling-stroke',
    opacity: faint ? 0.4 : 1,
  } as const;
  const onPointerDown = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const [x, z] = at(event);
    drag.current = { dx: node.x - x, dz: node.z - z, x: node.x, z: node.z, gesture: null };
    // One of several chosen ones is dragged with them.
    if (!selected || howOf(event) !== 'only') onSelectNode(node.id, howOf(event));
  };
  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    if (!drag.current) return;
    const [x, z] = at(event);
    const [nx, nz] = [x + drag.current.dx, z + drag.current.dz];
    if (!drag.current.gesture && Math.hypot(nx - drag.current.x, nz - drag.current.z) * scale < 2) return;
    drag.current.gesture ??= beginEdit();
    // Escape has taken it back: the rest of the drag does nothing.
    if (drag.current.gesture.open) onMoveNode(node.id, nx, nz, event.altKey ? 0 : DRAWN / scale);
  };
  const onPointerUp = (event: PointerEvent<SVGGElement>) => {
    onPointerMove(event);
    drag.current?.gesture?.commit();
    drag.current = null;
  };
  const onPointerCancel = () => {
    drag.current?.gesture?.cancel();
    drag.current = null;
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>) => {
    const step = lengths.steps * (event.shiftKey ? 1 : 0.1);
    const move: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    if (move[event.key] && !event.altKey && !event.ctrlKey) {
      hold.onKeyDown(event);
      onMoveNode(node.id, node.x + move[event.key]![0], node.z + move[event.key]![1], 0);
    } else if (event.key === 'Delete' || event.key === 'Backspace') onDeleteNode(node.id);
    else if (event.key === 'c') onToggleNode(node.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Node ${index + 1}, ${node.kind}, at ${lengthNumber(node.x, lengths)}, ${lengthNumber(node.z, lengths)}`}
      aria-pressed={selected}
      data-node={index}
      className="plan-hand"
      style={{ cursor: 'move' }}
      onFocus={() => !selected && onSelectNode(node.id, 'only')}
      onKeyUp={hold.onKeyUp}
      onBlur={hold.onBlur}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerCancel}
      onKeyDown={onKeyDown}
    >
      <circle cx={node.x} cy={node.z} r={11 / scale} fill="transparent" />
      <FocusRing x={node.x} z={node.z} scale={scale} />
      {node.kind === 'smooth' ? (
        <circle cx={node.x} cy={node.z} r={r} {...shape} />
      ) : (
        <rect x={node.x - r} y={node.z - r} width={2 * r} height={2 * r} {...shape} />
      )}
    </g>
  );
}
