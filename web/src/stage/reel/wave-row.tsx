import { frameTime } from '@eskovan/core/reel';
import { gainAt, voiceOf } from '@eskovan/core/sound';
import { useMemo } from 'react';
import { LABELS, type StripScale } from '../../strips/scales.ts';
import { beatsInReel } from './beats.ts';
import type { OpenReel } from './open-reel.ts';
import { useSoundFact } from './sound-facts.ts';

interface WaveRowProps {
  open: OpenReel;
  scale: StripScale;
  top: number;
  height: number;
}

/** The sound under the shots: its wave as loud as it is heard, and its beats. */
export function WaveRow({ open, scale, top, height }: WaveRowProps) {
  const fact = useSoundFact((state) => state.fact);
  const { sound } = open.row.body;
  const duration = frameTime(open.plan.frames, open.rate);
  return useMemo(() => {
    if (!sound || !fact?.buffer) return null;
    const { peaks, buffer, beats } = fact;
    const voice = voiceOf(sound, { duration, length: buffer.duration });
    const steps = Math.min(800, Math.max(2, Math.floor(scale.inner / 2)));
    const [from, to] = scale.ends;
    const points = Array.from({ length: steps + 1 }, (_, i) => {
      const time = from + ((to - from) * i) / steps;
      const peak = peaks[Math.floor(((sound.from + time - sound.start) / buffer.duration) * peaks.length)] ?? 0;
      return { x: scale.x(time), half: (peak * gainAt(voice, time) * height) / 2 };
    });
    const middle = top + height / 2;
    const upper = points.map(({ x, half }) => `${x.toFixed(1)} ${(middle - half).toFixed(1)}`).join('L');
    const lower = [...points]
      .reverse()
      .map(({ x, half }) => `${x.toFixed(1)} ${(middle + half).toFixed(1)}`)
      .join('L');
    return (
      <g>
        <path d={`M${upper}L${lower}Z`} fill="var(--slate)" fillOpacity="0.55" />
        {beatsInReel(beats?.times ?? [], sound)
          .filter((time) => time >= from && time <= to && time < duration)
          .map((time) => (
            <line
              key={time}
              x1={scale.x(time)}
              x2={scale.x(time)}
              y1={top + height - 5}
              y2={top + height}
              stroke="var(--ink-faint)"
            />
          ))}
        <text x={LABELS - 8} y={middle + 4} textAnchor="end" fontSize="11" fill="var(--ink-soft)">
          Sound
        </text>
      </g>
    );
  }, [sound, fact, duration, scale, top, height]);
}
