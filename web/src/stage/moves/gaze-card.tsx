import {
  atSomething,
  LOOK_AHEAD,
  ownName,
  type Gaze,
  type HeldGaze,
  type Row,
  type Vec3,
} from '@eskovan/core/document';
import { findTarget } from '@eskovan/core/gaze';
import { anglesOf, middle } from '@eskovan/core/geometry';
import type { CompiledMove } from '@eskovan/core/move';
import { Crosshair, Eye, Spline } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, PartField, Segmented } from '../../kit/index.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { addGazeSpan } from './edit-items.ts';
import { editShared, type Having } from './edit-move.ts';
import { drawGazeLine } from './gaze-line.ts';
import { GazeSpans, LineHeight } from './gaze-spans.tsx';
import { FindPart, GonePart, pressedPart } from '../shared/find-part.tsx';

/** What the direction is called that a kind of move has of itself. */
const OWN: Record<Looking['kind'], { value: Gaze['kind']; label: string }[]> = {
  walk: [{ value: 'ahead', label: 'Ahead' }],
  glide: [{ value: 'ahead', label: 'Ahead' }],
  travel: [
    { value: 'kept', label: 'As kept' },
    { value: 'ahead', label: 'Ahead' },
  ],
  ride: [
    { value: 'kept', label: 'From its seat' },
    { value: 'ahead', label: 'Ahead' },
  ],
  follow: [{ value: 'bearing', label: 'Kept direction' }],
};

type Looking = Having<'gaze'>;

/** Where a move looks: along its way, as it was kept, or at something. */
export function GazeCard({ row, body, move }: { row: Row<'move'>; body: Looking; move: CompiledMove | null }) {
  const aiming = useWorkbench((state) => state.aiming === 'look');
  const drawing = useWorkbench((state) => state.aiming === 'line');
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
            ...OWN[body.kind],
            { value: 'object', label: 'At an object' },
            ...(gaze.kind === 'recorded' ? [{ value: 'recorded' as const, label: 'As recorded' }] : []),
            ...(gaze.kind === 'line' ? [{ value: 'line' as const, label: 'Along a line' }] : []),
          ]}
          onChange={(kind) => {
            workbench.set({ aiming: kind === 'object' ? 'look' : null, forAWhile: false, playing: false });
            const own = ownGaze(kind, move);
            if (own && kind !== gaze.kind) editShared(row, 'gaze', 'Gaze', (now) => ({ ...now, gaze: own }));
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
          min={LOOK_AHEAD[0]}
          max={LOOK_AHEAD[1]}
          onChange={(distance) =>
            editShared(row, 'gaze', 'Gaze', (now) => ({ ...now, gaze: { kind: 'ahead', distance } }))
          }
        />
      )}
      {gaze.kind === 'object' && <Target gaze={gaze} />}
      {gaze.kind === 'line' && <LineHeight row={row} span={null} gaze={gaze} label="Line begins at" />}
      {atSomething(gaze) && !aiming && <InFrame row={row} gaze={gaze} />}
      {drawing && (
        <p role="status" className="my-1 flex items-center gap-2">
          <span className="min-w-0 flex-1">Press where the eye is to go along, on the plan or in the picture.</span>
          <Button small onClick={() => workbench.set({ aiming: null })}>
            Done
          </Button>
        </p>
      )}
      {aiming && (
        <p className="flex gap-2">
          <Crosshair size={15} className="mt-0.5 shrink-0 text-lagoon" aria-hidden />
          Press in the picture what the eye is to look at, or find it by its name. Escape leaves the gaze as it is.
        </p>
      )}
      {aiming && <FindPart onPart={(part) => aimAt(row, part, middle(part.bounds), move)} />}
      {aiming && (
        <Button small className="mt-1.5" icon={<Spline size={13} />} onClick={() => drawGazeLine(forAWhile)}>
          Draw a line for the eye
        </Button>
      )}
      {gaze.kind === 'object' && !aiming && (
        <div className="mt-1.5">
          <Button
            small
            icon={<Crosshair size={13} />}
            onClick={() => workbench.set({ aiming: 'look', forAWhile: false, playing: false })}
          >
            Another object
          </Button>
        </div>
      )}
      {!aiming && !drawing && move && (
        <div className="mt-1.5">
          <Button
            small
            icon={<Eye size={13} />}
            onClick={() => workbench.set({ aiming: 'look', forAWhile: true, playing: false })}
          >
            Look at something from here
          </Button>
        </div>
      )}
      {move && <GazeSpans row={row} body={body} move={move} />}
    </Card>
  );
}

function Target({ gaze }: { gaze: Extract<Gaze, { kind: 'object' }> }) {
  const parts = useParts();
  const lost = parts.length > 0 && findTarget(gaze, parts) === null;
  return (
    <>
      <Line label="Looks at">
        <span className="min-w-0 truncate font-medium" title={gaze.name}>
          {ownName(gaze.name)}
        </span>
      </Line>
      {lost && <GonePart name={gaze.name} meanwhile="The eye goes on looking where it was" />}
    </>
  );
}

/** The gaze of a kind that needs nothing to look at; null for others. */
function ownGaze(kind: Gaze['kind'], move: CompiledMove | null): Gaze | null {
  // In a small thing a way is short.
  if (kind === 'ahead') return { kind, distance: Math.max(LOOK_AHEAD[0], Math.min(2, move?.path?.length || 2)) };
  if (kind === 'kept') return { kind };
  if (kind !== 'bearing' || !move) return null;
  const { pan, tilt } = anglesOf(move.sampleAt(workbench.get().time).orientation);
  return { kind, pan, tilt };
}

/** Where in the frame what is looked at is held, and the room before it. */
function InFrame({ row, gaze }: { row: Row<'move'>; gaze: HeldGaze }) {
  const [across, up] = gaze.place ?? [0, 0];
  const set = (change: Pick<HeldGaze, 'place' | 'lead'>) =>
    editShared(row, 'gaze', 'Place in the frame', (now) => {
      if (!atSomething(now.gaze)) return now;
      const { place, lead, ...others } = { ...now.gaze, ...change };
      const held = place && (place[0] !== 0 || place[1] !== 0);
      return { ...now, gaze: { ...others, ...(held && { place }), ...(lead && { lead }) } };
    });
  return (
    <div className="grid grid-cols-2 gap-x-4">
      <PartField
        label="Held right by"
        value={across}
        least={-0.9}
        most={0.9}
        onChange={(x) => set({ place: [x, up] })}
      />
      <PartField label="Held up by" value={up} least={-0.9} most={0.9} onChange={(y) => set({ place: [across, y] })} />
      <PartField label="Room ahead" value={gaze.lead ?? 0} most={0.8} onChange={(lead) => set({ lead })} />
    </div>
  );
}

/** Lets a move look at what was pressed: all the way, or for a while from where it is. */
export async function lookAt(row: Row<'move'>, hit: PickedSurface, move: CompiledMove | null): Promise<void> {
  workbench.set({ aiming: null });
  const part = await pressedPart(hit);
  if (part) aimAt(row, part, hit.rest, move);
}

function aimAt(row: Row<'move'>, { model, name, bounds }: PartInfo, point: Vec3, move: CompiledMove | null): void {
  const { forAWhile, time } = workbench.get();
  workbench.set({ aiming: null, forAWhile: false, scout: null });
  const gaze = { kind: 'object' as const, model, name, point, centre: middle(bounds) };
  if (forAWhile && move) addGazeSpan(row, move, Math.min(time, move.duration), gaze);
  else editShared(row, 'gaze', `Look at ${ownName(name)}`, (now) => ({ ...now, gaze }));
}
