import type { SurveyedStorey } from '@eskovan/core/survey';
import { usePlan } from '../../plan/plan.tsx';

/** Below this side on screen nothing is written into a room, pixels. */
const LEAST_SIDE = 54;

/** Names and areas of rooms and voids, written where they are as soon as there is room for them. */
export function RoomLabels({ storey: { rooms, voids } }: { storey: Pick<SurveyedStorey, 'rooms' | 'voids'> }) {
  const { scale, toScreen } = usePlan();
  const all = [
    ...rooms.map((room) => ({ ...room, air: false })),
    ...voids.map(({ area, at }) => ({ name: 'Void', area, at, air: true })),
  ];
  return all
    .filter(({ area }) => Math.sqrt(area) * scale > LEAST_SIDE)
    .map(({ name, area, at, air }, i) => {
      const [left, top] = toScreen(at[0], at[2]);
      return (
        <div
          key={i}
          className="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-md bg-desk/80 px-1 text-center leading-tight"
          style={{ left, top }}
        >
          <span className={air ? 'block text-sm text-ink-soft italic' : 'block text-sm font-medium text-ink'}>
            {name}
          </span>
          <span className="block font-mono text-xs text-ink-soft">{area.toFixed(1)} m²</span>
        </div>
      );
    });
}
