import type { Row, Vec3, Walk } from '@eskovan/core/document';
import { findTarget } from '@eskovan/core/gaze';
import { middle } from '@eskovan/core/geometry';
import type { CompiledMove } from '@eskovan/core/move';
import { Crosshair, Eye } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, Segmented } from '../../kit/index.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { addGazeSpan, editItem } from './edit-items.ts';
import { editMove } from './edit-move.ts';
import { ItemRow } from './item-row.tsx';
import { FindPart, GonePart, pressedPart } from '../shared/find-part.tsx';

/** Where a walk looks: along its path, or at something. */
export function GazeCard({ row, body, move }: { row: Row<'move'>; body: Walk; move: CompiledMove | null }) {
  const aiming = useWorkbench((state) => state.aiming);
  const forAWhile = useWorkbench((state) => state.forAWhile);
  const { gaze } = body;
  return (
    <Card
      title="Gaze"
      note={
        <Segmented
          label="Where the eye looks"
          value={aiming && !forAWhile ? 'object' : gaze.kind}
          options={[
            { value: 'ahead', label: 'Ahead' },
            { value: 'object', label: 'At an object' },
            ...(gaze.kind === 'recorded' ? [{ value: 'recorded' as const, label: 'As recorded' }] : []),
          ]}
          onChange={(kind) => {
            workbench.set({ aiming: kind === 'object', forAWhile: false, playing: false });
            if (kind === 'ahead' && gaze.kind !== 'ahead')
              editMove(row, 'walk', 'Gaze', (now) => ({ ...now, gaze: { kind: 'ahead', distance: 2 } }));
          }}
        />
      }
    >
      {gaze.kind === 'ahead' && !aiming && (
        <NumberField
          label="Looks ahead"
          unit="m"
          measure="length"
          value={gaze.distance}
          step={0.25}
          min={0.3}
          max={20}
          onChange={(distance) =>
            editMove(row, 'walk', 'Gaze', (now) => ({ ...now, gaze: { kind: 'ahead', distance } }))
          }
        />
      )}
      {gaze.kind === 'object' && <Target gaze={gaze} />}
      {aiming && (
        <p className="flex gap-2">
          <Crosshair size={15} className="mt-0.5 shrink-0 text-lagoon" aria-hidden />
          Press in the picture what the eye is to look at, or find it by its name. Escape leaves the gaze as it is.
        </p>
      )}
      {aiming && <FindPart onPart={(part) => aimAt(row, part, middle(part.bounds), move)} />}
      {gaze.kind === 'object' && !aiming && (
        <div className="mt-1.5">
          <Button
            small
            icon={<Crosshair size={13} />}
            onClick={() => workbench.set({ aiming: true, forAWhile: false, playing: false })}
          >
            Another object
          </Button>
        </div>
      )}
      {!aiming && move?.path && (
        <div className="mt-1.5">
          <Button
            small
            icon={<Eye size={13} />}
            onClick={() => workbench.set({ aiming: true, forAWhile: true, playing: false })}
          >
            Look at something from here
          </Button>
        </div>
      )}
      {move && <GazeSpans row={row} body={body} move={move} />}
    </Card>
  );
}

function Target({ gaze }: { gaze: Extract<Walk['gaze'], { kind: 'object' }> }) {
  const parts = useParts();
  const lost = parts.length > 0 && findTarget(gaze, parts) === null;
  return (
    <>
      <Line label="Looks at">
        <span className="min-w-0 truncate font-medium" title={gaze.name}>
          {gaze.name.split(' / ').at(-1)}
        </span>
      </Line>
      {lost && <GonePart name={gaze.name} meanwhile="The eye goes on looking where it was" />}
    </>
  );
}

/** What is looked at for a while, and how softly. */
function GazeSpans({ row, body, move }: { row: Row<'move'>; body: Walk; move: CompiledMove }) {
  const items = move.channels.find(({ id }) => id === 'gaze')?.items ?? [];
  if (items.length === 0) return null;
  return (
    <ul aria-label="Looks for a while" className="mt-2 grid gap-1">
      {items.map((item) => (
        <ItemRow
          key={item.id}
          item={item}
          when={`${item.from.toFixed(1)}–${item.to.toFixed(1)} s`}
          onRemove={() => editItem(row, move, item, { by: 'remove' })}
        >
          <NumberField
            label={`Hand-over of ${item.about} at ${item.from.toFixed(1)} s`}
            bare
            unit="s"
            measure="time"
            value={body.gazeSpans?.find(({ id }) => id === item.id)?.handOver ?? 0}
            step={0.1}
            min={0}
            max={60}
            onChange={(handOver) =>
              editMove(row, 'walk', 'Hand-over of a gaze', (now) => ({
                ...now,
                gazeSpans: (now.gazeSpans ?? []).map((span) => (span.id === item.id ? { ...span, handOver } : span)),
              }))
            }
          />
        </ItemRow>
      ))}
    </ul>
  );
}

/** Lets a walk look at what was pressed: all the way, or for a while from where it is. */
export async function lookAt(row: Row<'move'>, hit: PickedSurface, move: CompiledMove | null): Promise<void> {
  workbench.set({ aiming: false });
  const part = await pressedPart(hit);
  if (part) aimAt(row, part, hit.rest, move);
}

function aimAt(row: Row<'move'>, { model, name, bounds }: PartInfo, point: Vec3, move: CompiledMove | null): void {
  const { forAWhile, time } = workbench.get();
  workbench.set({ aiming: false, forAWhile: false, scout: null });
  const gaze = { kind: 'object' as const, model, name, point, centre: middle(bounds) };
  if (forAWhile && move) addGazeSpan(row, move, Math.min(time, move.duration), gaze);
  else editMove(row, 'walk', `Look at ${name.split(' / ').at(-1)}`, (now) => ({ ...now, gaze }));
}
