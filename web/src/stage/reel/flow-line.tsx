import { frameTime } from '@eskovan/core/reel';
import { useMemo } from 'react';
import { useProject } from '../../data/use-project.ts';
import { LABELS, type StripScale } from '../../strips/scales.ts';
import { KIND_LOOKS } from '../shared/kind-look.tsx';
import type { OpenReel } from './open-reel.ts';
import type { JoinFact } from './reel-facts.ts';
import { carries, FLOW_COLOURS } from './words.ts';

interface FlowLineProps {
  open: OpenReel;
  scale: StripScale;
  top: number;
  height: number;
  flows: Readonly<Record<string, Float32Array>>;
  joins: Readonly<Record<string, JoinFact>>;
}

/** A calm picture moves this fast, frame widths a second (common practice, no source). */
const CALM: readonly [number, number] = [0.05, 0.2];
/** The strip has room for at least this and at most that, frame widths a second: what is faster is far too fast, and cut off. */
const [LEAST, MOST] = [0.3, 0.8];

const lineOf = (speeds: Float32Array, left: number, width: number, y: (speed: number) => number): string =>
  Array.from(
    speeds,
    (speed, k) => `${k ? 'L' : 'M'}${(left + (width * k) / (speeds.length - 1)).toFixed(1)} ${y(speed).toFixed(1)}`,
  ).join('');

/** How fast the picture moves through the whole reel: unbroken where a join carries, with a bar where it does not. */
export function FlowLine({ open, scale, top, height, flows, joins }: FlowLineProps) {
  const { move } = useProject();
  const { plan, shots, rate } = open;
  return useMemo(() => {
    const fastest = Object.values(flows).reduce((most, speeds) => speeds.reduce((a, b) => Math.max(a, b), most), 0);
    const most = Math.min(MOST, Math.max(LEAST, fastest)) * 1.08;
    // Slow and fast are both seen: as the square root.
    const y = (speed: number) => top + height - Math.sqrt(Math.min(1, Math.max(0, speed) / most)) * height;
    const colourOf = (index: number) => {
      const { use } = shots[index]!.body;
      const kind = use.kind === 'move' && move.find(({ id }) => id === use.move)?.body.kind;
      return kind ? KIND_LOOKS[kind].colour : 'var(--ink-faint)';
    };
    // One path a colour: of hundreds of shots each would be an element more to lay out and to paint.
    const lines = new Map<string, string>();
    const bars = new Map<string, string>();
    const add = (to: Map<string, string>, colour: string, d: string) => to.set(colour, (to.get(colour) ?? '') + d);
    plan.shots.forEach((shot, i) => {
      const left = scale.x(frameTime(shot.start, rate));
      const width = scale.x(frameTime(shot.start + shot.frames, rate)) - left;
      const speeds = flows[shot.id];
      if (speeds) add(lines, colourOf(i), lineOf(speeds, left, width, y));
      const fact = i > 0 ? joins[shot.id] : undefined;
      if (!fact || carries(fact.flow)) return;
      const x = scale.x(frameTime(shot.start + shot.overlap / 2, rate)).toFixed(1);
      const { word, before, after } = fact.flow;
      add(bars, FLOW_COLOURS[word], `M${x} ${y(before).toFixed(1)}V${y(after).toFixed(1)}`);
    });
    const right = LABELS + scale.inner;
    return (
      <g>
        <rect x={LABELS} width={scale.inner} y={top} height={height} fill="var(--paper)" />
        <rect
          x={LABELS}
          width={scale.inner}
          y={y(CALM[1])}
          height={y(CALM[0]) - y(CALM[1])}
          fill="var(--moss)"
          fillOpacity="0.12"
        />
        <clipPath id="flow-clip">
          <rect x={LABELS} width={scale.inner} y={top - 2} height={height + 4} />
        </clipPath>
        <g clipPath="url(#flow-clip)">
          {[...lines].map(([colour, d]) => (
            <path key={colour} d={d} fill="none" stroke={colour} strokeWidth="2" />
          ))}
          {[...bars].map(([colour, d]) => (
            <path key={colour} d={d} stroke={colour} strokeWidth="3" />
          ))}
        </g>
        <line x1={LABELS} x2={right} y1={top + height} y2={top + height} stroke="var(--rule)" />
      </g>
    );
  }, [flows, joins, plan, shots, rate, move, scale, top, height]);
}
