import { toDegrees } from '@eskovan/core/geometry';
import { Maximize, Minus, Plus } from 'lucide-react';
import { Button, cx } from '../kit/index.ts';
import { barLength } from './viewport.ts';

interface ScaleAndZoomProps {
  /** Pixels per metre. */
  scale: number;
  onZoom: (factor: number) => void;
  onWhole: () => void;
  /** There is little room: one above the other. */
  narrow: boolean;
}

/** The scale bar and the zoom, in the plan's lower right corner. */
export function ScaleAndZoom({ scale, onZoom, onWhole, narrow }: ScaleAndZoomProps) {
  const bar = barLength(scale);
  return (
    <div className={cx('absolute right-3 bottom-3 flex items-end', narrow ? 'flex-col gap-1' : 'gap-3')}>
      <div className="rounded bg-desk/80 px-1 pb-1 text-center font-mono text-xs text-ink-faint">
        <div className="mb-0.5 border-x border-b border-ink-faint" style={{ width: bar * scale, height: 5 }} />
        {bar < 0.1 ? `${Math.round(bar * 1000)} mm` : `${bar} m`}
      </div>
      <div className="flex overflow-hidden rounded-lg border border-rule bg-paper">
        <Button tone="quiet" small icon={<Minus size={14} />} aria-label="Zoom out" onClick={() => onZoom(0.8)} />
        <Button tone="quiet" small icon={<Plus size={14} />} aria-label="Zoom in" onClick={() => onZoom(1.25)} />
        <Button tone="quiet" small icon={<Maximize size={13} />} aria-label="Show the whole plan" onClick={onWhole} />
      </div>
    </div>
  );
}

/** Which way north is, in the plan's upper right corner. */
export function NorthArrow({ turn }: { turn: number }) {
  return (
    <svg
      className="pointer-events-none absolute top-3 right-3"
      width="44"
      height="26"
      viewBox="0 0 44 26"
      aria-label={turn === 0 ? 'North is up' : `North is ${Math.round(toDegrees(turn))}° to the right of up`}
    >
      <circle cx="13" cy="13" r="11" fill="none" stroke="var(--ink-faint)" />
      <path d="M13 4l4.5 15L13 16l-4.5 3z" fill="var(--ink)" transform={`rotate(${toDegrees(turn)} 13 13)`} />
      <text x="30" y="17" fontSize="11" fill="var(--ink-faint)">
        N
      </text>
    </svg>
  );
}

/** Where Enter presses, while the plan is used by keys. */
export function Cursor({ at: [x, z], scale }: { at: readonly [number, number]; scale: number }) {
  const [near, far] = [5 / scale, 14 / scale];
  const d = [
    [-1, 0],
    [1, 0],
    [0, -1],
    [0, 1],
  ]
    .map(([dx, dz]) => `M${x + near * dx!} ${z + near * dz!}L${x + far * dx!} ${z + far * dz!}`)
    .join('');
  return (
    <g pointerEvents="none" data-testid="plan-cursor" fill="none" vectorEffect="non-scaling-stroke">
      <path d={d} stroke="var(--paper)" strokeWidth={5} vectorEffect="non-scaling-stroke" />
      <path d={d} stroke="var(--ink)" strokeWidth={2} vectorEffect="non-scaling-stroke" />
    </g>
  );
}
