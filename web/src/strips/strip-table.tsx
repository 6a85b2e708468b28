import { tableAt, type CompiledWalk } from '@eskovan/core/move';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { Dialog } from '../kit/index.ts';

interface StripTableProps {
  walk: CompiledWalk;
  rate: Rate;
  /** What is shown; null shows nothing. */
  strip: 'Section' | 'Pace' | null;
  onClose: () => void;
  /** Goes to a time. */
  onTime: (time: number) => void;
}

/** Lines of a table at most: a long walk is told in larger steps. */
const MOST_LINES = 60;

/** Times on whole frames, evenly over the walk, its end included. */
export function tableTimes(duration: number, rate: Rate): number[] {
  const step = [0.5, 1, 2, 5, 10, 30, 60].find((one) => duration / one <= MOST_LINES) ?? 120;
  const times = Array.from({ length: Math.floor(duration / step) + 1 }, (_, i) =>
    frameTime(frameAt(i * step, rate), rate),
  );
  return duration - times.at(-1)! > 1e-6 ? [...times, duration] : times;
}

/** A strip in numbers, for whoever reads rather than sees it. */
export function StripTable({ walk, rate, strip, onClose, onTime }: StripTableProps) {
  const columns: readonly [string, (time: number) => number][] =
    strip === 'Pace'
      ? [['Speed, m/s', (time) => walk.pace.speedAt(time)]]
      : [
          ['Floor, m', (time) => tableAt(walk.profile.floor, walk.pace.stationAt(time))],
          ['Eye, m', (time) => tableAt(walk.eyeLine, walk.pace.stationAt(time))],
        ];
  return (
    <Dialog open={strip !== null} onClose={onClose} title={`${strip ?? 'Section'} as a table`}>
      <table className="w-full text-right font-mono tabular-nums">
        <thead className="font-sans text-ink-soft">
          <tr>
            <th className="pb-1 text-left font-medium">Time</th>
            <th className="pb-1 font-medium">Station, m</th>
            {columns.map(([title]) => (
              <th key={title} className="pb-1 font-medium">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {tableTimes(walk.duration, rate).map((time) => (
            <tr key={time} className="border-t border-rule">
              <td className="py-0.5 text-left">
                <button
                  type="button"
                  className="min-h-6 underline decoration-dotted"
                  onClick={() => {
                    onTime(time);
                    onClose();
                  }}
                >
                  {timecodeOf(frameAt(time, rate), rate)}
                </button>
              </td>
              <td>{walk.pace.stationAt(time).toFixed(2)}</td>
              {columns.map(([title, value]) => (
                <td key={title}>{value(time).toFixed(2)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
