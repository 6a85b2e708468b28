import { eyesOver, type DriftWay, type Row, type ShotBody, type ShotUse } from '@eskovan/core/document';
import { useProject } from '../../data/use-project.ts';
import { Line, NumberField, Select } from '../../kit/index.ts';
import { useSite } from '../../site/use-site.ts';
import { setShot } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

const DRIFTS: readonly { value: DriftWay | 'still'; label: string }[] = [
  { value: 'still', label: 'Still' },
  { value: 'in', label: 'Push in' },
  { value: 'out', label: 'Pull out' },
  { value: 'left', label: 'To the left' },
  { value: 'right', label: 'To the right' },
  { value: 'up', label: 'Up' },
  { value: 'down', label: 'Down' },
];
/** A slight push, as a part of how high the eye is over what it looks at: 0.3 m in a building, a few millimetres at a ring. */
const SLIGHT = 0.3 / 1.6;

interface ViewFieldsProps {
  open: OpenReel;
  row: Row<'shot'>;
  use: Extract<ShotUse, { kind: 'view' }>;
}

/** How a held view is shown: its camera goes somewhere slowly, its number stands in the picture. */
export function ViewFields({ open, row, use }: ViewFieldsProps) {
  const { eyeHeight } = useProject().project.body;
  const site = useSite();
  const slight = SLIGHT * (site ? eyesOver(site.bounds, eyeHeight) : eyeHeight);
  return (
    <>
      <Line label="Camera">
        <Select
          label="Camera of the shot"
          value={use.drift?.way ?? 'still'}
          options={DRIFTS}
          onChange={(way) => setShot(open, row, 'Camera', (body) => withDrift(body, way, slight))}
        />
      </Line>
      {use.drift && (
        <NumberField
          label="Goes"
          unit="m"
          measure="length"
          value={use.drift.distance}
          step={0.05}
          min={0}
          max={1000}
          onChange={(distance) => setShot(open, row, 'Camera', (body) => withDrift(body, use.drift!.way, distance))}
        />
      )}
      <label className="mt-1 flex min-h-7 items-center gap-2">
        <input
          type="checkbox"
          checked={row.body.numbered ?? false}
          onChange={(event) => {
            const numbered = event.target.checked;
            setShot(open, row, 'Number', ({ numbered: _, ...body }) => (numbered ? { ...body, numbered: true } : body));
          }}
        />
        shows the number of its view
      </label>
    </>
  );
}

function withDrift(body: ShotBody, way: DriftWay | 'still', distance: number): ShotBody {
  if (body.use.kind !== 'view') return body;
  const { drift: _, ...use } = body.use;
  return { ...body, use: way === 'still' ? use : { ...use, drift: { way, distance } } };
}
