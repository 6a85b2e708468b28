import { lengthText, type Bounds, type Orbit, type Vec3 } from '@eskovan/core/document';
import { nearestTurn, toDegrees } from '@eskovan/core/geometry';
import { useLengthUnit } from '../kit/index.ts';
import { PlanHandle } from './plan-handle.tsx';
import { usePlan } from './plan.tsx';

interface RingHandlesProps {
  orbit: Orbit;
  /** Where its pivot is, and how far from it the camera begins, metres. */
  pivot: Vec3;
  radius: number;
  /** Extent of what it goes round; null for a mere place. */
  bounds: Bounds | null;
  onChange: (label: string, change: Partial<Orbit>) => void;
}

/** Orbits turn by so much at least, radians: dragged back to its beginning an orbit is no whole turn. */
const LEAST = 0.02;

/** The hands of an orbit: where it begins, where it ends, how far away it is; and the outline of what it goes round. */
export function RingHandles({ orbit, pivot: [x, , z], radius, bounds, onChange }: RingHandlesProps) {
  const { scale } = usePlan();
  const lengths = useLengthUnit();
  const { start, sweep, inclination, widens = 1 } = orbit;
  const flat = Math.max(1e-6, radius * Math.cos(inclination));
  const at = (angle: number, part: number): [number, number] => {
    const away = flat * (1 + (widens - 1) * part);
    return [x + away * Math.sin(angle), z + away * Math.cos(angle)];
  };
  const angleOf = (px: number, pz: number) => Math.atan2(px - x, pz - z);
  const turns = orbit.turns !== 'subject';
  const [sx, sz] = at(start, 0);
  const [ex, ez] = beside(at(start + sweep, 1), [sx, sz], [x, z], 22 / scale);
  const [mx, mz] = at(start + sweep / 2, 0.5);
  const size = 6 / scale;
  const look = {
    fill: 'var(--paper)',
    stroke: 'var(--plum)',
    strokeWidth: 1.75,
    vectorEffect: 'non-scaling-stroke',
  } as const;
  return (
    <g>
      {bounds && (
        <rect
          x={bounds.min[0]}
          y={bounds.min[2]}
          width={bounds.max[0] - bounds.min[0]}
          height={bounds.max[2] - bounds.min[2]}
          fill="var(--plum)"
          fillOpacity={0.1}
          stroke="var(--plum)"
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
        />
      )}
      <PlanHandle
        x={sx}
        z={sz}
        label={`Start of the orbit, ${toDegrees(start).toFixed(0)}°`}
        onMove={(px, pz) => onChange('Where it begins', { start: angleOf(px, pz) })}
      >
        <circle cx={sx} cy={sz} r={size} {...look} />
      </PlanHandle>
      {turns && (
        <PlanHandle
          x={ex}
          z={ez}
          label={`End of the orbit, after ${toDegrees(sweep).toFixed(0)}°`}
          onMove={(px, pz) => {
            const next = nearestTurn(angleOf(px, pz), start + sweep) - start;
            onChange('Sweep', { sweep: Math.abs(next) < LEAST ? LEAST * Math.sign(sweep || 1) : next });
          }}
        >
          <rect x={ex - size} y={ez - size} width={2 * size} height={2 * size} {...look} />
        </PlanHandle>
      )}
      <PlanHandle
        x={mx}
        z={mz}
        label={`Distance of the orbit, ${lengthText(radius, lengths)}`}
        onMove={(px, pz) => {
          const away = Math.hypot(px - x, pz - z) / (1 + (widens - 1) / 2);
          onChange('Radius', { distance: { by: 'radius', radius: Math.max(0.001, away / Math.cos(inclination)) } });
        }}
      >
        <path d={`M${mx} ${mz - size}L${mx + size} ${mz}L${mx} ${mz + size}L${mx - size} ${mz}Z`} {...look} />
      </PlanHandle>
    </g>
  );
}

/** Where an orbit closes, its end is drawn a little within: two hands at one place are one. */
function beside(
  [ex, ez]: readonly [number, number],
  [sx, sz]: readonly [number, number],
  [x, z]: readonly [number, number],
  room: number,
): [number, number] {
  if (Math.hypot(ex - sx, ez - sz) > room) return [ex, ez];
  const away = Math.hypot(ex - x, ez - z);
  const part = Math.max(0, away - room) / Math.max(away, 1e-9);
  return [x + (ex - x) * part, z + (ez - z) * part];
}
