import { fixed, shownIn } from '@eskovan/core/document';
import type { Channel } from '@eskovan/core/track';
import { CutDrawing } from './cut-drawing.tsx';
import { LABELS, rangeOf, valuesOf, type StripScale } from './scales.ts';

/** A stretch of time in which something is wrong, and the channel that it shows in. */
export interface StripMark {
  channel: string | null;
  /** seconds */
  from: number;
  to: number;
}

const STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1200];

/** A place on the axis; long times as minutes and seconds. */
function markText(place: number, step: number, unit: string): string {
  if (unit !== 's') return `${step < 1 ? place.toFixed(1) : place} ${unit}`;
  if (step < 30) return `${step < 1 ? place.toFixed(1) : place} s`;
  return `${Math.floor(place / 60)}:${String(place % 60).padStart(2, '0')}`;
}

export function StripRuler({ scale, top }: { scale: StripScale; top: number }) {
  const { inner, lengths } = scale;
  const { name, metres } = scale.by === 'time' ? { name: 's', metres: 1 } : lengths;
  const [from, to] = scale.ends.map((end) => end / metres) as [number, number];
  const step = STEPS.find((s) => (to - from) / s <= 12) ?? 3600;
  const first = Math.ceil(from / step - 1e-9);
  const marks = Array.from(
    { length: Math.max(0, Math.floor(to / step + 1e-9) - first + 1) },
    (_, i) => (first + i) * step,
  );
  const x = (place: number) => LABELS + ((place - from) / (to - from)) * inner;
  return (
    <g fontFamily="var(--font-mono)" fontSize="11" fill="var(--ink-faint)">
      {marks.map((place) => (
        <g key={place}>
          <line x1={x(place)} x2={x(place)} y1={8} y2={top} stroke="var(--ink-faint)" strokeOpacity="0.6" />
          <text x={x(place) + 4} y={16}>
            {markText(place, step, name)}
          </text>
        </g>
      ))}
    </g>
  );
}

interface StripChartProps {
  channel: Channel;
  marks: readonly StripMark[];
  scale: StripScale;
  top: number;
  height: number;
}

/** One channel over time: its line, what lies under it, the band that feels right, and where something is wrong. */
export function StripChart({ channel, marks, scale, top, height }: StripChartProps) {
  const { x, inner } = scale;
  const { times, values, under } = valuesOf(channel, scale);
  const [low, high] = rangeOf(channel, values, under, scale.lengths);
  const y = (value: number) => top + height - ((value - low) / (high - low)) * height;
  const line = (list: readonly number[]) =>
    list.map((value, i) => `${i ? 'L' : 'M'}${x(times[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('');
  const closed = (list: readonly number[]) =>
    `${line(list)}L${LABELS + inner} ${top + height}L${LABELS} ${top + height}Z`;
  const { band } = channel;
  const { unit, times: scaled } = shownIn(channel.unit, scale.lengths);
  const ticks = channel.rows
    ? []
    : band
      ? [band[1], band[0]]
      : under
        ? [values[0]!, under[0]!]
        : [Math.max(...values), Math.min(...values)];
  return (
    <g>
      <rect x={LABELS} y={top} width={inner} height={height} fill="var(--paper)" />
      <text x={12} y={top + 14} fontSize="12.5" fontWeight="600" fill="var(--ink)">
        {channel.title}
      </text>
      <g fontFamily="var(--font-mono)" fontSize="11" fill="var(--ink-faint)" textAnchor="end">
        {/* On a hill the eye is a hair above the floor: one number is enough then. */}
        {ticks
          .filter((tick, i) => i === 0 || Math.abs(y(tick) - y(ticks[0]!)) > 12)
          .map((tick, i) => (
            <text key={tick} x={LABELS - 8} y={Math.min(top + height - 2, Math.max(top + 9, y(tick) + 4))}>
              {fixed(tick * scaled, Math.abs(tick * scaled) < 100 ? 1 : 0)}
              {i === 0 ? ` ${unit}` : ''}
            </text>
          ))}
      </g>
      {band && (
        <rect
          x={LABELS}
          y={y(band[1])}
          width={inner}
          height={y(band[0]) - y(band[1])}
          fill="var(--moss)"
          fillOpacity="0.13"
        />
      )}
      {channel.cut && channel.under && (
        <CutDrawing
          cut={channel.cut}
          floorAt={(time) => channel.under!.at(time)}
          {...{ times, x, y, top }}
          bottom={top + height}
        />
      )}
      {channel.rows ? null : under ? (
        <>
          <path d={closed(under)} fill="var(--rule)" fillOpacity="0.75" />
          <path d={line(under)} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
        </>
      ) : (
        <path d={closed(values)} fill="var(--lagoon)" fillOpacity="0.1" />
      )}
      {marks
        .filter(({ from, to }) => x(to) > LABELS && x(from) < LABELS + inner)
        .map(({ from, to }) => (
          <rect
            key={from}
            x={Math.max(LABELS, x(from))}
            y={top}
            width={Math.max(2, Math.min(LABELS + inner, x(to)) - Math.max(LABELS, x(from)))}
            height={height}
            fill="var(--madder)"
            fillOpacity="0.16"
          />
        ))}
      {!channel.rows && <path d={line(values)} fill="none" stroke="var(--lagoon)" strokeWidth="2" />}
    </g>
  );
}
