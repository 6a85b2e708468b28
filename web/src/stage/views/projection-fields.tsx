import type { Lens, Pose, StillCamera } from '@eskovan/core/document';
import { drawnFrom, fitted, type Drawn } from '@eskovan/core/framing';
import { toDegrees } from '@eskovan/core/geometry';
import { Projection, throughLens } from '@eskovan/core/optics';
import { useProject } from '../../data/use-project.ts';
import { useWorkbench } from '../../desk/workbench.ts';
import { Button, Line, NumberField, Segmented } from '../../kit/index.ts';
import { pickSeen } from '../../picture/client.ts';
import { rayThrough, worthSeeing } from '../../picture/eye.ts';
import { useSite, type SiteData } from '../../site/use-site.ts';
import { windOf } from '../shared/winds.ts';
import { CutFields } from './cut-fields.tsx';
import { scoutAs } from './use-seen.ts';

interface ProjectionFieldsProps extends StillCamera {
  /** The eye of this instant. */
  now: () => Pose;
  aspect: number;
  site: SiteData | null;
  onCamera: (label: string, camera: StillCamera) => void;
}

/** What fills the picture when it is drawn anew. */
const FILL = 0.86;
/** How far what is looked at is taken to be where nothing is looked at, metres. */
const SOMEWHERE = 5;

const DRAWN: readonly { drawn: Drawn; label: string }[] = [
  { drawn: 'plan', label: 'Plan' },
  { drawn: 'steep', label: 'From high above' },
  { drawn: 'isometric', label: 'Isometric' },
  { drawn: 'dimetric', label: 'Dimetric' },
];
/** Sides of the plan, and how far clockwise from its upper edge, degrees. */
const ELEVATIONS: readonly { drawn: Drawn; clockwise: number }[] = [
  { drawn: 'north', clockwise: 0 },
  { drawn: 'south', clockwise: 180 },
  { drawn: 'west', clockwise: 270 },
  { drawn: 'east', clockwise: 90 },
];

/** With perspective or without, and what is cut off. Another projection is looked at first. */
export function ProjectionFields({ pose, now, lens, aspect, site, onCamera }: ProjectionFieldsProps) {
  const { parallel, nearCut, farCut, ...others } = lens;
  const cuts: Pick<Lens, 'nearCut' | 'farCut'> = {
    ...(nearCut !== undefined && { nearCut }),
    ...(farCut !== undefined && { farCut }),
  };
  const measured = useSite();
  const { north } = useProject().project.body.sun;
  const subject = useWorkbench((state) => state.subject);
  const withoutPerspective = async () => {
    const seen = now();
    const projection = new Projection(throughLens(lens), aspect, seen.position, seen.orientation);
    const hit = await pickSeen(rayThrough(seen, lens, aspect, 0, 0));
    const depth = hit ? projection.project(hit.point).depth : SOMEWHERE;
    // What is in the middle keeps its size.
    const { height } = projection.footprint(depth);
    scoutAs({ pose: seen, lens: { ...others, ...cuts, parallel: height } });
  };
  const draw = (drawn: Drawn) => {
    const bounds = subject?.bounds ?? (measured && worthSeeing(measured.bounds, site?.survey ?? null));
    if (!bounds) return;
    const orientation = drawnFrom(drawn);
    scoutAs(fitted(bounds, orientation, { lens: { ...others, parallel: 1 }, aspect, fill: FILL }));
  };
  return (
    <>
      <Line label="Camera">
        <Segmented
          label="Projection"
          value={parallel === undefined ? 'perspective' : 'parallel'}
          options={[
            { value: 'perspective', label: 'Perspective' },
            { value: 'parallel', label: 'Parallel' },
          ]}
          onChange={(next) =>
            next === 'parallel' ? void withoutPerspective() : scoutAs({ pose: now(), lens: { ...others, ...cuts } })
          }
        />
      </Line>
      {parallel !== undefined && (
        <>
          <NumberField
            label="Height of the picture"
            unit="m"
            measure="length"
            step={0.5}
            value={parallel}
            min={0.001}
            max={1e6}
            onChange={(height) =>
              onCamera('Height of the picture', { pose: now(), lens: { ...lens, parallel: height } })
            }
          />
          <div role="group" aria-label="Drawn as" className="my-1.5 grid grid-cols-2 gap-1">
            {DRAWN.map(({ drawn, label }) => (
              <Button key={drawn} small onClick={() => draw(drawn)}>
                {label}
              </Button>
            ))}
            {ELEVATIONS.map(({ drawn, clockwise }) => (
              <Button key={drawn} small onClick={() => draw(drawn)}>
                {`${windOf(clockwise - toDegrees(north))} elevation`}
              </Button>
            ))}
          </div>
        </>
      )}
      <CutFields {...{ pose, now, lens, site, onCamera }} />
    </>
  );
}
