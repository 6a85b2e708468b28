import type { Row, Vec3, Walk } from '@eskovan/core/document';
import { findTarget } from '@eskovan/core/gaze';
import { middle } from '@eskovan/core/geometry';
import { Crosshair } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, Segmented } from '../../kit/index.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { editMove } from './edit-move.ts';
import { FindPart, GonePart, pressedPart } from '../shared/find-part.tsx';

/** Where a walk looks: along its path, or at something. */
export function GazeCard({ row, body }: { row: Row<'move'>; body: Walk }) {
  const aiming = useWorkbench((state) => state.aiming);
  const { gaze } = body;
  return (
    <Card
      title="Gaze"
      note={
        <Segmented
          label="Where the eye looks"
          value={aiming ? 'object' : gaze.kind}
          options={[
            { value: 'ahead', label: 'Ahead' },
            { value: 'object', label: 'At an object' },
          ]}
          onChange={(kind) => {
            workbench.set({ aiming: kind === 'object', playing: false });
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
      {aiming && <FindPart onPart={(part) => aimAt(row, part, middle(part.bounds))} />}
      {gaze.kind === 'object' && !aiming && (
        <div className="mt-1.5">
          <Button small icon={<Crosshair size={13} />} onClick={() => workbench.set({ aiming: true, playing: false })}>
            Another object
          </Button>
        </div>
      )}
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

/** Lets a walk look at what was pressed. */
export async function lookAt(row: Row<'move'>, hit: PickedSurface): Promise<void> {
  workbench.set({ aiming: false });
  const part = await pressedPart(hit);
  if (part) aimAt(row, part, hit.rest);
}

function aimAt(row: Row<'move'>, { model, name, bounds }: PartInfo, point: Vec3): void {
  workbench.set({ aiming: false });
  editMove(row, 'walk', `Look at ${name.split(' / ').at(-1)}`, (now) => ({
    ...now,
    gaze: { kind: 'object', model, name, point, centre: middle(bounds) },
  }));
}
