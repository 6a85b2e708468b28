import type { PaceShape, Row, Walk } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { Card, Line, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { editMove } from './edit-move.ts';

const SHAPES: readonly { value: PaceShape; label: string }[] = [
  { value: 'soft', label: 'Soft start and stop' },
  { value: 'constant', label: 'Constant' },
  { value: 'ease both', label: 'Ease both' },
];

interface PaceCardProps {
  row: Row<'move'>;
  body: Walk;
  move: CompiledMove | null;
  frames: number;
}

export function PaceCard({ row, body, move, frames }: PaceCardProps) {
  const { pace } = body;
  const set = (change: Partial<Walk['pace']>) =>
    editMove(row, 'walk', 'Pace', (now) => ({ ...now, pace: { ...now.pace, ...change } }));
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
                    speed: Math.max(0.05, Number(move.path.topSpeed.toFixed(3))),
                    duration: Math.max(0.1, Number(move.duration.toFixed(3))),
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
            label="Walking speed"
            unit="m/s"
            measure="speed"
            value={pace.speed}
            step={0.05}
            min={0.05}
            max={50}
            onChange={(speed) => set({ speed })}
          />
          <Line label="Takes">
            <Value unit="s">{move ? move.duration.toFixed(2) : '–'}</Value>
          </Line>
        </>
      ) : (
        <>
          <NumberField
            label="Takes"
            unit="s"
            measure="time"
            frames={frames}
            value={pace.duration}
            step={0.5}
            min={0.1}
            max={3600}
            onChange={(duration) => set({ duration })}
          />
          <Line label="Walking speed">
            <Value unit="m/s">{move?.path ? move.path.topSpeed.toFixed(2) : '–'}</Value>
          </Line>
        </>
      )}
      <Line label="Shape">
        <Select label="Shape of the pace" value={pace.shape} options={SHAPES} onChange={(shape) => set({ shape })} />
      </Line>
    </Card>
  );
}
