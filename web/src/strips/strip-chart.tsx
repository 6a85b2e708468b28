import type { Channel } from '@eskovan/core/track';
import { LABELS, rangeOf, valuesOf } from './scales.ts';

/** A stretch of time in which something is wrong, and the channel that it shows in. */
export interface StripMark {
  channel: string | null;
  /** seconds */
  from: number;
  to: number;
}

export function StripRuler({ duration, x, top }: { duration: number; x: (time: number) => number; top: number }) {
  const step = [0.5, 1, 2, 5, 10, 20, 30, 60, 120].find((s) => duration / s <= 12) ?? 300;
  const marks = Array.from({ length: Math.floor(duration / step) + 1 }, (_, i) => i * step);
  return (
    <g fontFamily="var(--font-mono)" fontSize="11" fill="var(--ink-faint)">
      {marks.map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={8} y2={top} stroke="var(--ink-faint)" strokeOpacity="0.6" />
          <text x={x(t) + 4} y={16}>
            {step < 1 ? t.toFixed(1) : t} s
          </text>
        </g>
      ))}
    </g>
  );
}

interface StripChartProps {
  channel: Channel;
  duration: number;
  marks: readonly StripMark[];
  x: (time: number) => number;
  top: number;
  height: number;
  inner: number;
}

/** One channel over time: its line, what lies under it, the band that feels right, and where something is wrong. */
export function StripChart({ channel, duration, marks, x, top, height, inner }: StripChartProps) {
  const { times, values, under } = valuesOf(channel, duration, inner);
  const [low, high] = rangeOf(channel, values, under);
  const y = (value: number) => top + height - ((value - low) / (high - low)) * height;
  const line = (list: readonly number[]) =>
    list.map((value, i) => `${i ? 'L' : 'M'}${x(times[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('');
  const closed = (list: readonly number[]) => `${line(list)}L${x(duration)} ${top + height}L${LABELS} ${top + height}Z`;
  const { band } = channel;
  const ticks = band
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
              {tick.toFixed(Math.abs(tick) < 100 ? 1 : 0).replace('-0.0', '0.0')}
              {i === 0 ? ` ${channel.unit}` : ''}
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
      {under ? (
        <>
          <path d={closed(under)} fill="var(--rule)" fillOpacity="0.75" />
          <path d={line(under)} fill="none" stroke="var(--ink)" strokeWidth="1.25" />
        </>
      ) : (
        <path d={closed(values)} fill="var(--lagoon)" fillOpacity="0.1" />
      )}
      {marks.map(({ from, to }) => (
        <rect
          key={from}
          x={x(from)}
          y={top}
          width={Math.max(2, x(to) - x(from))}
          height={height}
          fill="var(--madder)"
          fillOpacity="0.16"
        />
      ))}
      <path d={line(values)} fill="none" stroke="var(--lagoon)" strokeWidth="2" />
    </g>
  );
}
