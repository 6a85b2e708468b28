import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { beginEdit, type Gesture } from '../data/undo.ts';
import { howOf, type How } from '../desk/selection.ts';
import { useHeldKey } from '../desk/use-held-key.ts';
import { FocusRing } from './focus-ring.tsx';
import { usePlan } from './plan.tsx';

interface PlanHandleProps {
  x: number;
  z: number;
  label: string;
  pressed?: boolean;
  /** It is pressed, or reached by keys. */
  onChoose?: (how: How) => void;
  /** To where it is dragged, or moved by arrows, metres; a drag is one gesture of many such calls. */
  onMove: (x: number, z: number) => void;
  onDelete?: () => void;
  children: ReactNode;
}

/** A press that moves less than this is none, pixels. */
const STILL = 2;
/** An arrow moves it by so much at most, metres, and on the plan of a small thing by about so many pixels; with Shift by ten times as much. */
const [STEP, STEP_PIXELS] = [0.1, 8];
const stepAt = (scale: number) => Math.min(STEP, 10 ** Math.floor(Math.log10(STEP_PIXELS / scale)));

/** Something on the plan that is dragged, or moved by the arrows. */
export function PlanHandle({ x, z, label, pressed, onChoose, onMove, onDelete, children }: PlanHandleProps) {
  const { scale, at } = usePlan();
  const hold = useHeldKey();
  const drag = useRef<{ dx: number; dz: number; x: number; z: number; gesture: Gesture | null } | null>(null);
  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    const held = drag.current;
    if (!held) return;
    const [px, pz] = at(event);
    const [nx, nz] = [px + held.dx, pz + held.dz];
    if (!held.gesture && Math.hypot(nx - held.x, nz - held.z) * scale < STILL) return;
    held.gesture ??= beginEdit();
    // Escape has taken it back: the rest of the drag does nothing.
    if (held.gesture.open) onMove(nx, nz);
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>) => {
    const step = (event.shiftKey ? 10 : 1) * stepAt(scale);
    const way: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const by = way[event.key];
    if (by && !event.altKey && !event.ctrlKey) {
      hold.onKeyDown(event);
      onMove(x + by[0], z + by[1]);
    } else if (onDelete && (event.key === 'Delete' || event.key === 'Backspace')) onDelete();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      {...(pressed !== undefined && { 'aria-pressed': pressed })}
      className="plan-hand"
      style={{ cursor: 'move' }}
      onFocus={() => pressed !== true && onChoose?.('only')}
      onKeyDown={onKeyDown}
      onKeyUp={hold.onKeyUp}
      onBlur={hold.onBlur}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        const [px, pz] = at(event);
        drag.current = { dx: x - px, dz: z - pz, x, z, gesture: null };
        // One of several chosen ones is dragged with them.
        if (!pressed || howOf(event) !== 'only') onChoose?.(howOf(event));
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
      <circle cx={x} cy={z} r={11 / scale} fill="transparent" />
      <FocusRing x={x} z={z} scale={scale} />
      {children}
    </g>
  );
}
