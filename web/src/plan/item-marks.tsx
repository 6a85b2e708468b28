import type { CompiledMove } from '@eskovan/core/move';
import { useMemo } from 'react';
import { usePlan } from './plan.tsx';

/** A stretch is drawn by points so far apart, metres. */
const STEP = 0.2;

/** What of a move's strips has a place on its path: where it stands, goes slower, and looks at something else. */
export function ItemMarks({ move }: { move: CompiledMove }) {
  const { scale } = usePlan();
  const { stretches, places } = useMemo(() => marksOf(move), [move]);
  const size = 1 / scale;
  return (
    <g style={{ pointerEvents: 'none' }} aria-hidden>
      {stretches.map(({ id, kind, d }) => (
        <path
          key={id}
          d={d}
          fill="none"
          vectorEffect="non-scaling-stroke"
          stroke={kind === 'gaze' ? 'var(--ochre)' : 'var(--ink-soft)'}
          strokeWidth={kind === 'gaze' ? 9 : 5}
          strokeOpacity={kind === 'gaze' ? 0.4 : 0.35}
          strokeLinecap="round"
        />
      ))}
      {places.map(({ id, kind, x, z }) => (
        <g key={id} transform={`translate(${x} ${z}) scale(${size})`} data-testid={`plan-${kind}`}>
          <circle
            r={9}
            fill="var(--paper)"
            stroke={kind === 'pin' ? 'var(--madder)' : 'var(--ink)'}
            strokeWidth={1.5}
          />
          {kind === 'pause' ? (
            <path d="M-2.5 -4v8M2.5 -4v8" stroke="var(--ink)" strokeWidth={2} strokeLinecap="round" />
          ) : (
            <path d="M0 5v-9l5 2.5l-5 2.5" fill="var(--madder)" stroke="var(--madder)" strokeWidth={1.5} />
          )}
        </g>
      ))}
    </g>
  );
}

function marksOf({ channels, path }: CompiledMove) {
  const items = path ? channels.flatMap((channel) => channel.items ?? []) : [];
  const point = new Float64Array(2);
  const at = (station: number): [number, number] => {
    path!.pointAt(station, point);
    return [point[0]!, point[1]!];
  };
  const places = items
    .filter(({ kind }) => kind === 'pause' || kind === 'pin')
    .map(({ id, kind, from }) => {
      const [x, z] = at(path!.stationAt(from));
      return { id, kind, x, z };
    });
  const stretches = items
    .filter(({ kind }) => kind === 'gaze' || kind === 'mark')
    .map(({ id, kind, from, to }) => {
      const [start, end] = [path!.stationAt(from), path!.stationAt(to)];
      const steps = Math.max(1, Math.ceil((end - start) / STEP));
      const d = Array.from({ length: steps + 1 }, (_, i) => {
        const [x, z] = at(start + ((end - start) * i) / steps);
        return `${i === 0 ? 'M' : 'L'}${x.toFixed(3)} ${z.toFixed(3)}`;
      }).join('');
      return { id, kind, d };
    });
  return { places, stretches };
}
