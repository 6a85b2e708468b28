import type { MoveBody, Row } from '@eskovan/core/document';
import {} from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { editMove } from './edit-move.ts';

interface DurationFieldProps {
  row: Row<'move'>;
  body: Extract<MoveBody, { kind: 'orbit' | 'ride' | 'follow' }>;
}

/** How long a move lasts that has no speed in metres. */
export function DurationField({ row, body }: DurationFieldProps) {
  return (
    <TimeField
      label="Takes"
      value={body.duration}
      step={0.5}
      min={0.1}
      max={3600}
      onChange={(duration) => editMove(row, body.kind, 'Duration', (now) => ({ ...now, duration }))}
    />
  );
}
