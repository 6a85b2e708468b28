import { ownName, type Orbit, type Pivot, type Row, type Vec3 } from '@eskovan/core/document';
import { middle } from '@eskovan/core/geometry';
import { Crosshair } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Length, Line, Segmented } from '../../kit/index.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { editMove } from './edit-move.ts';
import { FindPart, GonePart, pressedPart } from '../shared/find-part.tsx';

/** What an orbit goes round. */
export function PivotCard({ row, body }: { row: Row<'move'>; body: Orbit }) {
  const aiming = useWorkbench((state) => state.aiming === 'subject');
  const { pivot } = body;
  return (
    <Card
      title="Round"
      note={
        pivot.kind === 'object' && (
          <Segmented
            label="How much of it"
            value={pivot.whole ? 'whole' : 'part'}
            options={[
              { value: 'part', label: 'The part' },
              { value: 'whole', label: 'Its model' },
            ]}
            onChange={(value) =>
              editMove(row, 'orbit', 'What it goes round', (now) =>
                now.pivot.kind === 'object' ? { ...now, pivot: { ...now.pivot, whole: value === 'whole' } } : now,
              )
            }
          />
        )
      }
    >
      {pivot.kind === 'object' ? <Named pivot={pivot} /> : <Place point={pivot.point} />}
      {aiming ? (
        <>
          <p className="flex gap-2">
            <Crosshair size={15} className="mt-0.5 shrink-0 text-lagoon" aria-hidden />
            Press in the picture or in the plan what the camera is to go round, or find it by its name. Escape leaves it
            as it is.
          </p>
          <FindPart onPart={(part) => roundPart(row, part)} />
        </>
      ) : (
        <div className="mt-1.5">
          <Button
            small
            icon={<Crosshair size={13} />}
            onClick={() => workbench.set({ aiming: 'subject', playing: false })}
          >
            Choose what
          </Button>
        </div>
      )}
    </Card>
  );
}

const Place = ({ point }: { point: Vec3 }) => (
  <Line label="A place">
    <Length metres={point} />
  </Line>
);

function Named({ pivot }: { pivot: Extract<Pivot, { kind: 'object' }> }) {
  const parts = useParts();
  const mine = parts.filter(({ model }) => model === pivot.model);
  const lost = parts.length > 0 && (pivot.whole ? mine.length === 0 : mine.every(({ name }) => name !== pivot.name));
  return (
    <>
      <Line label={pivot.whole ? 'The model of' : 'The middle of'}>
        <span className="min-w-0 truncate font-medium" title={pivot.name}>
          {ownName(pivot.name)}
        </span>
      </Line>
      {lost && <GonePart name={pivot.name} meanwhile="The camera goes round where it was" />}
    </>
  );
}

/** Lets an orbit go round what was pressed. */
export async function goRound(row: Row<'move'>, hit: PickedSurface): Promise<void> {
  workbench.set({ aiming: null });
  const part = await pressedPart(hit);
  if (part) roundPart(row, part);
}

function roundPart(row: Row<'move'>, { model, name, bounds }: PartInfo): void {
  workbench.set({ aiming: null, scout: null });
  editMove(row, 'orbit', `Go round ${ownName(name)}`, (now) => ({
    ...now,
    pivot: {
      kind: 'object',
      model,
      name,
      whole: now.pivot.kind === 'object' && now.pivot.whole,
      point: middle(bounds),
    },
    // What has a size can fill the frame; a distance that somebody gave to another object means nothing here.
    distance: { by: 'fit', fill: now.distance.by === 'fit' ? now.distance.fill : 0.7 },
  }));
}

/** Lets an orbit go round a place of the plan. */
export function roundPlace(row: Row<'move'>, point: Vec3, radius: number): void {
  workbench.set({ aiming: null, scout: null });
  editMove(row, 'orbit', 'Go round a place', (now) => ({
    ...now,
    pivot: { kind: 'point', point },
    distance: { by: 'radius', radius },
  }));
}
