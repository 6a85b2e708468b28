import { lengthText } from '@eskovan/core/document';
import type { Channel, SectionCut, TightPlace } from '@eskovan/core/track';
import { useLengthUnit } from '../kit/index.ts';

interface CutDrawingProps {
  cut: NonNullable<Channel['cut']>;
  /** Of the floor at a time, metres. */
  floorAt: (time: number) => number;
  times: readonly number[];
  x: (time: number) => number;
  y: (value: number) => number;
  /** The strip's edges, pixels. */
  top: number;
  bottom: number;
}

/** What is cut overhead, and what stands close beside the way, behind it: as architects draw a long section. */
export function CutDrawing({ cut, floorAt, times, x, y, top, bottom }: CutDrawingProps) {
  const cuts = times.map((time) => cut.at(time));
  const inside = (value: number) => Math.min(bottom, Math.max(top, y(value)));
  /** Every unbroken run of places where something is, as a closed outline. */
  const outlines = (upper: (at: SectionCut, i: number) => number, lower: (at: SectionCut, i: number) => number) =>
    runsOf(cuts.map((one, i) => !Number.isNaN(upper(one, i)) && y(lower(one, i)) > top))
      .map(([from, to]) => {
        const [there, back]: string[][] = [[], []];
        for (let i = from; i <= to; i += 1) {
          const at = x(times[i]!).toFixed(1);
          there!.push(`${at} ${inside(upper(cuts[i]!, i)).toFixed(1)}`);
          back!.push(`${at} ${inside(lower(cuts[i]!, i)).toFixed(1)}`);
        }
        return `M${there!.join('L')}L${back!.reverse().join('L')}Z`;
      })
      .join('');
  return (
    <g>
      <path
        d={outlines(
          ({ beside }) => beside,
          (_, i) => floorAt(times[i]!),
        )}
        fill="var(--ink)"
        fillOpacity="0.1"
      />
      <path
        d={outlines(
          ({ top: high }) => high,
          ({ ceiling }) => ceiling,
        )}
        fill="var(--ink)"
        fillOpacity="0.72"
      />
    </g>
  );
}

/** First and last of every run of places that have something. */
function runsOf(has: readonly boolean[]): [number, number][] {
  const runs: [number, number][] = [];
  has.forEach((one, i) => {
    if (!one) return;
    const last = runs.at(-1);
    if (last?.[1] === i - 1) last[1] = i;
    else runs.push([i, i]);
  });
  return runs;
}

/** Such words take so much room, pixels. */
const WIDE = 112;

const WORDS: Record<TightPlace['kind'], string> = { overhead: 'overhead', beside: 'beside' };

interface TightPlacesProps {
  places: readonly TightPlace[];
  x: (time: number) => number;
  /** The strip's right edge, pixels. */
  right: number;
  top: number;
  onTime: (time: number) => void;
}

/** Where there is the least room, in numbers: pressed, one is there. */
export function TightPlaces({ places, x, right, top, onTime }: TightPlacesProps) {
  const lengths = useLengthUnit();
  return places.map(({ kind, time, value }, i) => (
    <button
      key={kind}
      type="button"
      title={`Least room ${WORDS[kind]}, at ${time.toFixed(1)} s`}
      className="absolute flex items-center gap-1 rounded-[5px] bg-paper/85 px-1 font-mono text-xs whitespace-nowrap text-ink-soft hover:text-ink"
      style={{
        top: top + 2 + 16 * i,
        ...(x(time) + WIDE > right ? { right: `calc(100% - ${x(time) - 3}px)` } : { left: x(time) + 3 }),
      }}
      onPointerDown={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onClick={() => onTime(time)}
    >
      {lengthText(value, lengths)} {WORDS[kind]}
    </button>
  ));
}
