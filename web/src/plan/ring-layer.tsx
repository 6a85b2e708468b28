import type { Pivot } from '@eskovan/core/document';
import type { MovePath } from '@eskovan/core/move';
import { useMemo } from 'react';
import { usePlan } from './plan.tsx';

interface RingLayerProps {
  path: MovePath;
  pivot: Pivot | null;
  colour?: string;
  /** A press on the line, at a station. */
  onPress: (station: number) => void;
}

/** Pieces that a ring is drawn in. */
const PIECES = 180;

/** The way of a camera round something: its line, where it begins and which way it goes, and what it goes round. */
export function RingLayer({ path, pivot, colour = 'var(--plum)', onPress }: RingLayerProps) {
  const { scale, at } = usePlan();
  const line = useMemo(() => {
    const point = new Float64Array(2);
    return Array.from({ length: PIECES + 1 }, (_, i) => {
      path.pointAt((path.length * i) / PIECES, point);
      return `${i === 0 ? 'M' : 'L'}${point[0]!.toFixed(4)} ${point[1]!.toFixed(4)}`;
    }).join('');
  }, [path]);
  const shared = { d: line, fill: 'none', vectorEffect: 'non-scaling-stroke' } as const;
  const [begin, next] = [path.placeAt(0), path.placeAt(Math.min(path.length, path.length / 60))];
  const angle = Math.atan2(next[2] - begin[2], next[0] - begin[0]);
  const size = 8 / scale;
  const corner = (turn: number, part: number) =>
    `${begin[0] + part * size * Math.cos(angle + turn)} ${begin[2] + part * size * Math.sin(angle + turn)}`;
  return (
    <g>
      <path {...shared} stroke="var(--paper)" strokeWidth={6} />
      <path {...shared} stroke={colour} strokeWidth={2.5} data-testid="path" />
      <path
        {...shared}
        stroke="transparent"
        strokeWidth={14}
        style={{ cursor: 'pointer' }}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.stopPropagation();
          onPress(path.nearest(...at(event)));
        }}
      />
      <path d={`M${corner(0, 1.3)}L${corner(2.4, 1)}L${corner(-2.4, 1)}Z`} fill={colour} />
      {pivot && (
        <g stroke="var(--ochre)" strokeWidth={2} vectorEffect="non-scaling-stroke">
          <path
            d={`M${pivot.point[0] - size} ${pivot.point[2]}h${2 * size}M${pivot.point[0]} ${pivot.point[2] - size}v${2 * size}`}
            vectorEffect="non-scaling-stroke"
          />
          <circle
            cx={pivot.point[0]}
            cy={pivot.point[2]}
            r={0.55 * size}
            fill="var(--paper)"
            vectorEffect="non-scaling-stroke"
          />
        </g>
      )}
    </g>
  );
}
