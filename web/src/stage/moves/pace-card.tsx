import { FIRST_LIMITS, PACE_LIMITS, type Pace, type Row } from '@eskovan/core/document';
import type { CompiledMove, MovePath } from '@eskovan/core/move';
import { FIRST_CARRY } from '@eskovan/core/pace';
import { Card, Length, Line, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { CarryFields, SHAPES } from '../shared/pace-shape.tsx';
import { changePace } from './edit-items.ts';
import { editShared, type Having } from './edit-move.ts';
import { PaceItems } from './pace-items.tsx';
import { PaceStretch } from './pace-stretch.tsx';

/** What corners are slowed down to first, degrees a second: no faster than the note of the checks. */
const FIRST_TURNING = FIRST_LIMITS.turnNote;

const AS_IT_WAS = { value: 'kept', label: 'As it was' } as const;

const hasPath = (move: CompiledMove | null): move is CompiledMove & { path: MovePath } => Boolean(move?.path);

interface PaceCardProps {
  row: Row<'move'>;
  body: Having<'pace'>;
  move: CompiledMove | null;
}

export function PaceCard({ row, body, move }: PaceCardProps) {
  const { pace } = body;
  const speedName = body.kind === 'walk' ? 'Walking speed' : 'Top speed';
  /** How long or how fast: what is kept as it was goes on being so. */
  const set = (change: Pick<Partial<Pace>, 'by' | 'speed' | 'duration'>) =>
    editShared(row, 'pace', 'Pace', (now) => ({ ...now, pace: { ...now.pace, ...change } }));
  const setOther = (change: Partial<Pace>) => changePace(row, 'Pace', (now) => ({ ...now, ...change }));
  return (
    <Card
      title="Pace"
      note={
        <Segmented
          label="What leads"
          value={pace.by}
          options={[
            { value: 'speed', label: 'By speed' },
            { value: 'duration', label: 'By time' },
          ]}
          onChange={(by) =>
            // What was a result becomes the wish: nothing jumps.
            set({
              by,
              ...(move?.path
                ? {
                    speed: Math.max(PACE_LIMITS.speed[0], Number(move.path.topSpeed.toFixed(3))),
                    duration: Math.max(PACE_LIMITS.duration[0], Number(move.duration.toFixed(3))),
                  }
                : {}),
            })
          }
        />
      }
    >
      {pace.by === 'speed' ? (
        <>
          <NumberField
            label={speedName}
            unit="m/s"
            measure="speed"
            value={pace.speed}
            step={0.05}
            min={PACE_LIMITS.speed[0]}
            max={PACE_LIMITS.speed[1]}
            onChange={(speed) => set({ speed })}
          />
          <Line label="Takes">
            <Value unit="s">{move ? move.duration.toFixed(2) : '–'}</Value>
          </Line>
        </>
      ) : (
        <>
          <TimeField
            label="Takes"
            value={pace.duration}
            step={0.5}
            min={PACE_LIMITS.duration[0]}
            max={PACE_LIMITS.duration[1]}
            onChange={(duration) => set({ duration })}
          />
          <Line label={speedName}>
            <Length metres={move?.path?.topSpeed ?? null} per="s" />
          </Line>
        </>
      )}
      <Line label="Shape">
        <Select
          label="Shape of the pace"
          value={pace.kept ? 'kept' : pace.shape}
          options={pace.kept ? [AS_IT_WAS, ...SHAPES] : SHAPES}
          onChange={(shape) => shape !== 'kept' && setOther({ shape })}
        />
      </Line>
      {pace.kept && (
        <p className="text-sm text-ink-soft">
          As fast at every moment as it was made: from another kind of move, or with its stretches changed. Another
          shape, a pause, a slow place or a pin gives it a pace of its own.
        </p>
      )}
      {pace.shape === 'carry' && !pace.kept && (
        <CarryFields carry={pace.carry ?? FIRST_CARRY} onCarry={(carry) => setOther({ carry })} />
      )}
      <Line label="Slower at corners">
        <Segmented
          label="Slower at corners"
          value={pace.turning === undefined ? 'no' : 'yes'}
          options={[
            { value: 'no', label: 'No' },
            { value: 'yes', label: 'Yes' },
          ]}
          onChange={(slower) =>
            changePace(row, 'Corners', ({ turning: _, ...others }) =>
              slower === 'yes' ? { ...others, turning: FIRST_TURNING } : others,
            )
          }
        />
      </Line>
      {pace.turning !== undefined && (
        <NumberField
          label="Turns at most"
          unit="°/s"
          value={pace.turning}
          step={5}
          min={PACE_LIMITS.turning[0]}
          max={PACE_LIMITS.turning[1]}
          onChange={(turning) => setOther({ turning })}
        />
      )}
      {move?.path && <PaceItems row={row} pace={pace} move={move} />}
      {hasPath(move) && <PaceStretch row={row} move={move} />}
    </Card>
  );
}
