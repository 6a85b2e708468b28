import { lineFindings } from '@eskovan/core/check';
import { lengthText, ownName, type LengthUnit, type PathNode, type Walker } from '@eskovan/core/document';
import type { Footing } from '@eskovan/core/survey';
import type { Snap } from '@eskovan/core/wayfind';
import { useMemo } from 'react';
import { useLengthUnit } from '../../kit/index.ts';
import { usePlan } from '../../plan/plan.tsx';
import { shortFinding } from '../shared/describe-finding.ts';

interface DrawingLineProps {
  last: PathNode | undefined;
  /** Where the next node would be: x, height of the surface there, z. */
  to: { x: number; y: number | null; z: number };
  footing: Footing;
  walker: Walker;
  eyeHeight: number;
  /** What the hand is drawn to. */
  snap: Snap | null;
  /** Of the path so far, metres. */
  sofar: number;
}

/** The line to where the next node would be, with the height there, and red where a walker could not go. */
export function DrawingLine({ last, to, footing, walker, eyeHeight, snap, sofar }: DrawingLineProps) {
  const { scale } = usePlan();
  const lengths = useLengthUnit();
  const { x, y, z } = to;
  const findings = useMemo(
    () => (last ? lineFindings(last, { x, y: y ?? last.y, z }, footing, walker, eyeHeight) : []),
    [last, x, y, z, footing, walker, eyeHeight],
  );
  const length = last ? Math.hypot(x - last.x, z - last.z) : 0;
  const at = (station: number): [number, number] =>
    last ? [last.x + ((x - last.x) * station) / length, last.z + ((z - last.z) * station) / length] : [x, z];
  const line = { vectorEffect: 'non-scaling-stroke', strokeLinecap: 'round' } as const;
  const first = findings[0];
  const height = y === null ? 'no floor here' : lengthText(y, lengths).replace('-', '−');
  return (
    <g pointerEvents="none">
      {last && (
        <line
          x1={last.x}
          y1={last.z}
          x2={x}
          y2={z}
          {...line}
          stroke="var(--lagoon)"
          strokeWidth={1.5}
          strokeDasharray="4 4"
        />
      )}
      {findings.map(({ rule, from, to: end }) => {
        // What is met at one place still has to be seen.
        const [a, b] = [at(Math.max(0, from - 0.1)), at(Math.min(length, end + 0.1))];
        return (
          <line
            key={`${rule} ${from}`}
            x1={a[0]}
            y1={a[1]}
            x2={b[0]}
            y2={b[1]}
            {...line}
            stroke="var(--madder)"
            strokeWidth={5}
          />
        );
      })}
      <g
        transform={`translate(${x} ${z}) scale(${1 / scale})`}
        fontFamily="var(--font-mono)"
        fontSize="12"
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        <text x={14} y={-10} fill={y === null ? 'var(--madder)' : 'var(--ink)'} data-testid="height-here">
          {height}
        </text>
        {last && (
          <text x={14} y={-26} fill="var(--ink)" data-testid="length-here">
            {`${lengthText(length, lengths)}, ${lengthText(sofar + length, lengths, 1)} in all`}
          </text>
        )}
        {snap && (
          <text x={14} y={first ? 22 : 6} fill="var(--lagoon)" data-testid="snapped">
            {snapText(snap, lengths)}
          </text>
        )}
        {first && (
          <text x={14} y={6} fill="var(--madder)" data-testid="in-the-way">
            {shortFinding(first.rule, first.size)}
            {findings.length > 1 ? ` and ${findings.length - 1} more` : ''}
          </text>
        )}
      </g>
    </g>
  );
}

function snapText(snap: Snap, lengths: LengthUnit): string {
  switch (snap.kind) {
    case 'passage':
      return `middle of ${lengthText(snap.width, lengths)}`;
    case 'node':
      return `node ${snap.index + 1}`;
    case 'beside':
      return `${lengthText(snap.distance, lengths)} beside`;
    case 'thing':
      return `in line with ${ownName(snap.name)}`;
    default:
      return snap.kind;
  }
}
