import { tableAt, type CompiledWalk } from '@eskovan/core/move';
import { wayFindings } from '@eskovan/core/check';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import type { Rate } from '@eskovan/core/document';
import { useWorkbench } from '../desk/workbench.ts';
import { Button, useSize } from '../kit/index.ts';
import { Table2 } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { StripTable } from './strip-table.tsx';

interface StripsProps {
  walk: CompiledWalk;
  rate: Rate;
  onTime: (time: number) => void;
}

const LABELS = 108;
const RIGHT = 18;
const RULER = 22;
/** Comfortable walking, m/s (common practice for walkthroughs). */
const BAND = [0.8, 1.4] as const;

/** What the move does over time: the long section under it, and its pace. One time axis for all. */
export function Strips({ walk, rate, onTime }: StripsProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [table, setTable] = useState<(typeof STRIPS)[number] | null>(null);
  const inner = Math.max(10, size.width - LABELS - RIGHT);
  const stripHeight = Math.max(40, (size.height - RULER - 14) / 2);
  const x = (t: number) => LABELS + (t / walk.duration) * inner;
  const seek = (event: PointerEvent<HTMLDivElement>) => {
    const rect = event.currentTarget.getBoundingClientRect();
    const part = (event.clientX - rect.left - LABELS) / inner;
    const snapped = frameTime(
      frameAt(Math.min(1, Math.max(0, part)) * walk.duration + 0.5 * frameTime(1, rate), rate),
      rate,
    );
    onTime(Math.min(walk.duration, snapped));
  };
  return (
    <div
      ref={box}
      className="relative h-full w-full touch-none overflow-hidden bg-desk select-none"
      data-testid="strip-charts"
      onPointerDown={(event) => {
        if (event.clientX - event.currentTarget.getBoundingClientRect().left < LABELS - 8) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        seek(event);
      }}
      onPointerMove={(event) =>
        event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId) && seek(event)
      }
    >
      {size.width > 0 && (
        <>
          <svg width={size.width} height={size.height} className="block">
            <Charts walk={walk} x={x} inner={inner} stripHeight={stripHeight} />
          </svg>
          <Playhead walk={walk} rate={rate} x={x} onTime={onTime} />
          {STRIPS.map((strip, i) => (
            <Button
              key={strip}
              small
              tone="quiet"
              icon={<Table2 size={13} />}
              aria-label={`${strip} as a table`}
              className="absolute! left-1.5"
              style={{ top: RULER + 4 + i * (stripHeight + 6) + 18 }}
              onClick={() => setTable(strip)}
            />
          ))}
        </>
      )}
      <StripTable walk={walk} rate={rate} strip={table} onClose={() => setTable(null)} onTime={onTime} />
    </div>
  );
}

const STRIPS = ['Section', 'Pace'] as const;

interface ChartsProps {
  walk: CompiledWalk;
  x: (time: number) => number;
  inner: number;
  stripHeight: number;
}

/** Everything that stays while the playhead moves. */
function Charts({ walk, x, inner, stripHeight }: ChartsProps) {
  return useMemo(() => {
    const steps = Math.max(2, Math.min(600, Math.round(inner)));
    const times = Array.from({ length: steps + 1 }, (_, i) => (walk.duration * i) / steps);
    return (
      <g>
        <Ruler duration={walk.duration} x={x} />
        <Section walk={walk} times={times} x={x} top={RULER + 4} height={stripHeight} inner={inner} />
        <PaceStrip walk={walk} times={times} x={x} top={RULER + 10 + stripHeight} height={stripHeight} inner={inner} />
      </g>
    );
    // `x` follows from walk and inner.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [walk, inner, stripHeight]);
}

function Ruler({ duration, x }: { duration: number; x: (time: number) => number }) {
  const step = [0.5, 1, 2, 5, 10, 20, 30, 60, 120].find((s) => duration / s <= 12) ?? 300;
  const marks = Array.from({ length: Math.floor(duration / step) + 1 }, (_, i) => i * step);
  return (
    <g fontFamily="var(--font-mono)" fontSize="11" fill="var(--ink-faint)">
      {marks.map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={8} y2={RULER} stroke="var(--ink-faint)" strokeOpacity="0.6" />
          <text x={x(t) + 4} y={16}>
            {step < 1 ? t.toFixed(1) : t} s
          </text>
        </g>
      ))}
    </g>
  );
}

interface StripProps {
  walk: CompiledWalk;
  times: readonly number[];
  x: (time: number) => number;
  top: number;
  height: number;
  inner: number;
}

function StripFrame({
  title,
  unit,
  ticks,
  top,
  height,
  inner,
  y,
}: {
  title: string;
  unit: string;
  ticks: readonly number[];
  top: number;
  height: number;
  inner: number;
  y: (value: number) => number;
}) {
  return (
    <g>
      <rect x={LABELS} y={top} width={inner} height={height} fill="var(--paper)" />
      <text x={12} y={top + 14} fontSize="12.5" fontWeight="600" fill="var(--ink)">
        {title}
      </text>
      <g fontFamily="var(--font-mono)" fontSize="11" fill="var(--ink-faint)" textAnchor="end">
        {/* On a hill the eye is a hair above the floor: one number is enough then. */}
        {ticks
          .filter((tick, i) => i === 0 || Math.abs(y(tick) - y(ticks[0]!)) > 12)
          .map((tick, i) => (
            <text key={tick} x={LABELS - 8} y={Math.min(top + height - 2, Math.max(top + 9, y(tick) + 4))}>
              {tick.toFixed(1).replace('-0.0', '0.0')}
              {i === 0 ? ` ${unit}` : ''}
            </text>
          ))}
      </g>
    </g>
  );
}

/** The long section: the floor as it is, and the eye above it. */
function Section({ walk, times, x, top, height, inner }: StripProps) {
  const stations = times.map((t) => walk.pace.stationAt(t));
  const floor = stations.map((s) => tableAt(walk.profile.floor, s));
  const eye = stations.map((s) => tableAt(walk.eyeLine, s));
  const low = Math.min(...floor) - 0.35;
  const high = Math.max(...eye) + 0.35;
  const y = (value: number) => top + height - ((value - low) / (high - low)) * height;
  const line = (values: readonly number[]) =>
    values.map((value, i) => `${i ? 'L' : 'M'}${x(times[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('');
  return (
    <g>
      <StripFrame title="Section" unit="m" ticks={[eye[0]!, floor[0]!]} top={top} height={height} inner={inner} y={y} />
      <path
        d={`${line(floor)}L${x(walk.duration)} ${top + height}L${LABELS} ${top + height}Z`}
        fill="var(--rule)"
        fillOpacity="0.75"
      />
      <path d={line(floor)} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
      {wayFindings(walk).map(({ rule, ...stretch }) => {
        const [from, to] = [walk.timeAt(stretch.from), walk.timeAt(stretch.to)];
        return (
          <rect
            key={`${rule} ${stretch.from}`}
            x={x(from)}
            y={top}
            width={Math.max(2, x(to) - x(from))}
            height={height}
            fill="var(--madder)"
            fillOpacity="0.16"
          />
        );
      })}
      <path d={line(eye)} fill="none" stroke="var(--lagoon)" strokeWidth="2" />
    </g>
  );
}

/** Speed over time, against the band that feels like walking. */
function PaceStrip({ walk, times, x, top, height, inner }: StripProps) {
  const speeds = times.map((t) => walk.pace.speedAt(t));
  const high = Math.max(1.8, walk.pace.cruise * 1.2);
  const y = (value: number) => top + height - (value / high) * (height - 4);
  const line = speeds.map((value, i) => `${i ? 'L' : 'M'}${x(times[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('');
  return (
    <g>
      <StripFrame title="Pace" unit="m/s" ticks={[BAND[1], BAND[0]]} top={top} height={height} inner={inner} y={y} />
      <rect
        x={LABELS}
        y={y(BAND[1])}
        width={inner}
        height={y(BAND[0]) - y(BAND[1])}
        fill="var(--moss)"
        fillOpacity="0.13"
      />
      <path
        d={`${line}L${x(walk.duration)} ${top + height}L${LABELS} ${top + height}Z`}
        fill="var(--lagoon)"
        fillOpacity="0.1"
      />
      <path d={line} fill="none" stroke="var(--lagoon)" strokeWidth="2" />
    </g>
  );
}

interface PlayheadProps extends StripsProps {
  x: (time: number) => number;
}

/** A layer of its own: moving it redraws nothing under it. */
function Playhead({ walk, rate, x, onTime }: PlayheadProps) {
  const time = useWorkbench((state) => state.time);
  const frame = frameAt(time, rate);
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -25, PageDown: 25 };
    const target =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? walk.duration
          : steps[event.key] === undefined
            ? null
            : frameTime(frame + steps[event.key]!, rate);
    if (target === null) return;
    event.preventDefault();
    event.stopPropagation();
    onTime(Math.min(walk.duration, Math.max(0, target)));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Time"
      aria-valuemin={0}
      aria-valuemax={Number(walk.duration.toFixed(2))}
      aria-valuenow={Number(time.toFixed(2))}
      aria-valuetext={timecodeOf(frame, rate)}
      onKeyDown={onKeyDown}
      className="absolute top-0 bottom-0 left-0 w-2.5 will-change-transform"
      style={{ transform: `translateX(${(x(Math.min(time, walk.duration)) - 5).toFixed(2)}px)` }}
    >
      <svg width="10" height="16" className="absolute top-0.5 left-0" aria-hidden>
        <path d="M0 0h10v8l-5 5l-5 -5z" fill="var(--ink)" />
      </svg>
      <span className="absolute top-2.5 bottom-0 left-[4.4px] w-[1.25px] bg-ink" />
    </div>
  );
}
