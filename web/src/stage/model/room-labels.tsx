import type { SurveyedStorey } from '@eskovan/core/survey';
import { usePlan } from '../../plan/plan.tsx';

/** Names and areas of rooms, written where they are as soon as there is room for them. */
export function RoomLabels({ rooms }: { rooms: SurveyedStorey['rooms'] }) {
  const { scale, toScreen } = usePlan();
  return rooms
    .filter(({ area }) => Math.sqrt(area) * scale > 54)
    .map(({ name, area, at }, i) => {
      const [left, top] = toScreen(at[0], at[2]);
      return (
        <div
          key={i}
          className="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-md bg-desk/80 px-1 text-center leading-tight"
          style={{ left, top }}
        >
          <span className="block text-sm font-medium text-ink">{name}</span>
          <span className="block font-mono text-xs text-ink-soft">{area.toFixed(1)} m²</span>
        </div>
      );
    });
}
