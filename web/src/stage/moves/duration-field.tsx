import type { MoveBody, Row } from '@eskovan/core/document';
import { NumberField } from '../../kit/index.ts';
import { editMove } from './edit-move.ts';

interface DurationFieldProps {
  row: Row<'move'>;
  body: Extract<MoveBody, { kind: 'orbit' | 'ride' | 'follow' }>;
  frames: number;
}

/** How long a move lasts that has no speed in metres. */
export function DurationField({ row, body, frames }: DurationFieldProps) {
  return (
    <NumberField
      label="Takes"
      unit="s"
      measure="time"
      frames={frames}
      value={body.duration}
      step={0.5}
      min={0.1}
      max={3600}
      onChange={(duration) => editMove(row, body.kind, 'Duration', (now) => ({ ...now, duration }))}
    />
  );
}
