import { lengthText, ownName, type Lens, type Pose, type StillCamera } from '@eskovan/core/document';
import { fitted, fromSide, heldBeside, lookingAt, SIDES } from '@eskovan/core/framing';
import { anglesOf, middle, toRadians } from '@eskovan/core/geometry';
import { FOCAL_LENGTHS } from '@eskovan/core/move';
import { Columns3, Crosshair, Eye, X } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, Segmented, useLengthUnit } from '../../kit/index.ts';
import { pickSurface } from '../../picture/client.ts';
import { FindPart } from '../shared/find-part.tsx';
import { WINDS } from '../shared/winds.ts';
import { scoutAs } from './use-seen.ts';

interface SubjectCardProps {
  /** The eye of this instant. */
  now: () => Pose;
  lens: Lens;
  aspect: number;
  /** Where north is: angle from the plan's −Z towards +X, radians. */
  north: number;
  /** Puts cameras that hold the subject beside each other; absent where there is no view that they could be of. */
  onBeside?: (cameras: readonly NamedCamera[]) => void;
}

/** A camera and what sets it apart. */
export interface NamedCamera {
  name: string;
  camera: StillCamera;
}

const FIRST_FILL = 0.7;
/** How far from above something is looked at to begin with, degrees. */
const FIRST_DOWN = 10;
/** Where the sides stand on the card: as on a compass, from above in the middle. */
const ROSE = [7, 0, 1, 6, null, 2, 5, 4, 3] as const;

/** What the picture is about: framed from any side, looked at, and held while the lens changes. */
export function SubjectCard({ now, lens, aspect, north, onBeside }: SubjectCardProps) {
  const subject = useWorkbench((state) => state.subject);
  const pressing = useWorkbench((state) => state.pressing);
  const holding = useWorkbench((state) => state.holding);
  const [fill, setFill] = useState(FIRST_FILL);
  const [down, setDown] = useState(FIRST_DOWN);
  const lengths = useLengthUnit();
  const choosing = pressing === 'subject';
  const name = subject && ownName(subject.name);
  const frameFrom = async (side: number, angle: number) => {
    if (!subject) return;
    const orientation = fromSide(side, angle, north);
    const camera = fitted(subject.bounds, orientation, { lens, aspect, fill });
    scoutAs(camera);
    const between = await inBetween(camera.pose.position, subject);
    if (between) toast(`“${ownName(between)}” stands between the camera and “${name}”.`);
  };
  const besideEachOther = async (put: NonNullable<typeof onBeside>) => {
    if (!subject) return;
    const cameras = heldBeside(subject.bounds, { pose: now(), lens }, aspect, FOCAL_LENGTHS);
    if (cameras.length === 0) {
      toast(`“${name}” is not before the camera: look at it first, through a lens.`);
      return;
    }
    const named = cameras.map(async (camera) => {
      const away = Math.hypot(...middle(subject.bounds).map((value, k) => value - camera.pose.position[k]!));
      const between = await inBetween(camera.pose.position, subject);
      const behind = between ? `, behind “${ownName(between)}”` : '';
      const length = camera.lens.focalLengthMm - lens.focalLengthMm;
      const which = length < 0 ? 'Wide' : length > 0 ? 'Long' : 'As it is';
      return { name: `${which}, from ${lengthText(away, lengths)}${behind}`, camera };
    });
    put(await Promise.all(named));
  };
  return (
    <Card
      title="Subject"
      note={
        subject && (
          <Button
            small
            tone="quiet"
            icon={<X size={13} />}
            aria-label="No subject"
            onClick={() => workbench.set({ subject: null, holding: false })}
          />
        )
      }
    >
      {subject && (
        <p className="truncate font-medium" title={subject.name}>
          {name}
        </p>
      )}
      <Button
        small
        className="my-1 w-full"
        icon={<Crosshair size={13} />}
        pressed={choosing}
        onClick={() => workbench.set({ pressing: choosing ? null : 'subject' })}
      >
        {choosing ? 'Press it in the picture' : subject ? 'Choose another' : 'Choose what it is about'}
      </Button>
      {choosing && <FindPart onPart={(part) => workbench.set({ subject: part, pressing: null })} />}
      {subject && (
        <>
          <div className="my-1.5 flex items-center gap-3">
            <div role="group" aria-label="Frame it from" className="grid grid-cols-3 gap-1">
              {ROSE.map((k) =>
                k === null ? (
                  <Button
                    key="above"
                    small
                    aria-label="Frame it from above"
                    onClick={() => void frameFrom(Math.PI, Math.PI / 2)}
                  >
                    ⊙
                  </Button>
                ) : (
                  <Button
                    key={k}
                    small
                    className="w-10 justify-center"
                    aria-label={`Frame it from ${WINDS[k]}`}
                    onClick={() => void frameFrom(toRadians(SIDES[k]!), toRadians(down))}
                  >
                    {WINDS[k]}
                  </Button>
                ),
              )}
            </div>
            <Button
              small
              icon={<Eye size={13} />}
              onClick={() => {
                const seen = now();
                workbench.set({ scout: lookingAt(seen, middle(subject.bounds), anglesOf(seen.orientation).pan) });
              }}
            >
              Look at it
            </Button>
          </div>
          <NumberField
            label="It fills"
            unit="%"
            digits={0}
            step={5}
            value={100 * fill}
            min={5}
            max={100}
            onChange={(percent) => setFill(percent / 100)}
          />
          <NumberField
            label="From above by"
            unit="°"
            digits={0}
            step={5}
            value={down}
            min={-80}
            max={80}
            onChange={setDown}
          />
          <Line label="New lens">
            <Segmented
              label="When the lens changes"
              value={holding ? 'hold' : 'stay'}
              options={[
                { value: 'stay', label: 'Stay here' },
                { value: 'hold', label: 'Hold size' },
              ]}
              onChange={(next) => workbench.set({ holding: next === 'hold' })}
            />
          </Line>
          {onBeside && lens.parallel === undefined && (
            <Button
              small
              className="mt-1 w-full"
              icon={<Columns3 size={13} />}
              onClick={() => void besideEachOther(onBeside)}
            >
              Wide and long beside it
            </Button>
          )}
        </>
      )}
    </Card>
  );
}

type Place = Pose['position'];

/** What is met on the way from an eye to the middle of something, and is not it; null where the way is free. */
async function inBetween(
  eye: Place,
  { model, name, bounds }: { model: string; name: string; bounds: { min: Place; max: Place } },
): Promise<string | null> {
  const to = middle(bounds).map((value, k) => value - eye[k]!) as Place;
  const distance = Math.hypot(...to);
  const hit = await pickSurface(eye, to.map((value) => value / distance) as Place);
  if (!hit || (hit.model === model && hit.name === name)) return null;
  const inside = hit.point.every((value, k) => value >= bounds.min[k]! - 1e-3 && value <= bounds.max[k]! + 1e-3);
  return inside || Math.hypot(...hit.point.map((value, k) => value - eye[k]!)) > distance ? null : hit.name;
}
