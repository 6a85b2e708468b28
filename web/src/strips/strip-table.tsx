import type { CompiledMove } from '@eskovan/core/move';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import { lengthNumber, shownIn, type Rate } from '@eskovan/core/document';
import { Dialog, useLengthUnit } from '../kit/index.ts';

interface StripTableProps {
  move: CompiledMove;
  rate: Rate;
  /** The channel that is shown; null shows nothing. */
  strip: string | null;
  onClose: () => void;
  /** Goes to a time. */
  onTime: (time: number) => void;
}

/** Lines of a table at most: a long move is told in larger steps. */
const MOST_LINES = 60;

/** Times on whole frames, evenly over the move, its end included. */
export function tableTimes(duration: number, rate: Rate): number[] {
  const step = [0.5, 1, 2, 5, 10, 30, 60].find((one) => duration / one <= MOST_LINES) ?? 120;
  const times = Array.from({ length: Math.floor(duration / step) + 1 }, (_, i) =>
    frameTime(frameAt(i * step, rate), rate),
  );
  return duration - times.at(-1)! > 1e-6 ? [...times, duration] : times;
}

/** A strip in numbers, for whoever reads rather than sees it. */
export function StripTable({ move, rate, strip, onClose, onTime }: StripTableProps) {
  const channel = move.channels.find(({ id }) => id === strip);
  const { path } = move;
  const lengths = useLengthUnit();
  const { unit, times } = shownIn(channel?.unit ?? '', lengths);
  const columns: readonly [string, (time: number) => number][] = channel
    ? [
        ...(channel.under ? [[`${channel.under.title}, ${unit}`, channel.under.at] as const] : []),
        [`${channel.under ? 'Eye' : channel.title}, ${unit}`, (time: number) => channel.at(time)],
        ...(channel.under
          ? [[`Eye over floor, ${unit}`, (time: number) => channel.at(time) - channel.under!.at(time)]]
          : []),
        ...(channel.cut
          ? [
              [`Headroom, ${unit}`, (time: number) => channel.cut!.at(time).ceiling - channel.under!.at(time)],
              [`Free beside, ${unit}`, (time: number) => channel.cut!.at(time).free],
            ]
          : []),
      ].map(([title, at]) => [title as string, at as (time: number) => number])
    : [];
  return (
    <Dialog open={channel !== undefined} onClose={onClose} title={`${channel?.title ?? ''} as a table`}>
      <table className="w-full text-right font-mono tabular-nums">
        <thead className="font-sans text-ink-soft">
          <tr>
            <th className="pb-1 text-left font-medium">Time</th>
            {path && <th className="pb-1 font-medium">Station, {lengths.name}</th>}
            {columns.map(([title]) => (
              <th key={title} className="pb-1 font-medium">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {(channel ? tableTimes(move.duration, rate) : []).map((time) => (
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
              {path && <td>{lengthNumber(path.stationAt(time), lengths)}</td>}
              {columns.map(([title, value]) => (
                <td key={title}>{Number.isFinite(value(time)) ? (times * value(time)).toFixed(2) : '–'}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
