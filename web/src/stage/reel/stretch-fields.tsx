import type { Row, ShotUse } from '@eskovan/core/document';
import { frameTime, type PlannedShot } from '@eskovan/core/reel';
import { ArrowLeftRight } from 'lucide-react';
import { Button, Line, Segmented, Value } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { setItsPace, slipShot, trimShot, turnRound } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

interface StretchFieldsProps {
  open: OpenReel;
  row: Row<'shot'>;
  use: Extract<ShotUse, { kind: 'move' | 'clip' }>;
  planned: PlannedShot;
  /** What a new length changes. */
  by: 'trim' | 'pace';
  onBy: (by: 'trim' | 'pace') => void;
}

/** Which stretch of a move or a clip a shot shows, how fast, and which way. */
export function StretchFields({ open, row, use, planned, by, onBy }: StretchFieldsProps) {
  const second = Math.round(open.rate.num / open.rate.den);
  return (
    <>
      <Segmented
        label="A new length"
        value={by}
        options={[
          { value: 'trim', label: 'by its ends' },
          { value: 'pace', label: 'by its pace' },
        ]}
        onChange={onBy}
      />
      <div className="mt-1 grid grid-cols-2 gap-x-4">
        {(['from', 'to'] as const).map((end) => (
          <TimeField
            key={end}
            label={end === 'from' ? 'From' : 'To'}
            value={planned[end]}
            min={0}
            step={1 / second}
            onChange={(value) => trimTo(open, row, end, value)}
          />
        ))}
      </div>
      <Line label="Pace">
        <span className="flex items-center gap-1.5">
          <Value>{(planned.speed * 100).toFixed(0)} %</Value>
          {row.body.seconds !== undefined && (
            <Button small onClick={() => setItsPace(open, row)}>
              As the {use.kind}
            </Button>
          )}
        </span>
      </Line>
      <div className="mt-1 flex flex-wrap gap-1.5">
        <Button
          small
          icon={<ArrowLeftRight size={13} />}
          pressed={planned.backwards}
          onClick={() => turnRound(open, row)}
        >
          Backwards
        </Button>
        <Button
          small
          onClick={() => slipShot(open, row, -5)}
          title={`The same length of the ${use.kind}, five frames earlier`}
        >
          Slip back
        </Button>
        <Button
          small
          onClick={() => slipShot(open, row, 5)}
          title={`The same length of the ${use.kind}, five frames later`}
        >
          Slip on
        </Button>
      </div>
    </>
  );
}

/** The stretch of a move typed in numbers. */
function trimTo(open: OpenReel, row: Row<'shot'>, end: 'from' | 'to', value: number): void {
  const { plan, shots, rate } = open;
  const planned = plan.shots[shots.indexOf(row)]!;
  const source = value - planned[end];
  const frames = Math.round(source / planned.speed / frameTime(1, rate));
  const atStart = (end === 'from') !== planned.backwards;
  // Backwards, the start of the shot is the end of its stretch.
  trimShot(open, row, atStart ? 'start' : 'end', planned.backwards ? -frames : frames);
}
