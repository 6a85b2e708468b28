import { FARTHEST_PLACE, type GazeAlongLine, type Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { NumberField } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { editItem } from './edit-items.ts';
import { editShared, type Having } from './edit-move.ts';
import { editGazeOf } from './gaze-line.ts';
import { ItemRow } from './item-row.tsx';

/** What is looked at for a while, and how softly. */
export function GazeSpans({ row, body, move }: { row: Row<'move'>; body: Having<'gaze'>; move: CompiledMove }) {
  const items = move.channels.find(({ id }) => id === 'gaze')?.items ?? [];
  if (items.length === 0) return null;
  return (
    <ul aria-label="Looks for a while" className="mt-2 grid gap-1">
      {items.map((item) => {
        const span = body.gazeSpans?.find(({ id }) => id === item.id);
        return (
          <ItemRow
            key={item.id}
            item={item}
            when={`${item.from.toFixed(1)}–${item.to.toFixed(1)} s`}
            onRemove={() => editItem(row, move, item, { by: 'remove' })}
          >
            <TimeField
              label={`Hand-over of ${item.about} at ${item.from.toFixed(1)} s`}
              bare
              value={span?.handOver ?? 0}
              step={0.1}
              min={0}
              max={60}
              onChange={(handOver) =>
                editShared(row, 'gaze', 'Hand-over of a gaze', (now) => ({
                  ...now,
                  gazeSpans: (now.gazeSpans ?? []).map((one) => (one.id === item.id ? { ...one, handOver } : one)),
                }))
              }
            />
            {span?.gaze.kind === 'line' && (
              <LineHeight
                row={row}
                span={span.id}
                gaze={span.gaze}
                label={`Height of ${item.about} at ${item.from.toFixed(1)} s`}
                bare
              />
            )}
          </ItemRow>
        );
      })}
    </ul>
  );
}

interface LineHeightProps {
  row: Row<'move'>;
  /** Of which span it is; null: of the whole move. */
  span: string | null;
  gaze: GazeAlongLine;
  label: string;
  bare?: boolean;
}

/** How high a line of the eye begins: raised, all of it is. */
export function LineHeight({ row, span, gaze, ...field }: LineHeightProps) {
  return (
    <NumberField
      {...field}
      unit="m"
      measure="length"
      value={gaze.path.nodes[0]!.y}
      step={0.1}
      min={-FARTHEST_PLACE}
      max={FARTHEST_PLACE}
      onChange={(height) =>
        editGazeOf(row, span, 'Height of the line', (now) => {
          if (now.kind !== 'line') return now;
          const by = height - now.path.nodes[0]!.y;
          return { ...now, path: { ...now.path, nodes: now.path.nodes.map((node) => ({ ...node, y: node.y + by })) } };
        })
      }
    />
  );
}
