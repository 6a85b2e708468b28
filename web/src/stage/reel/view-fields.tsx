import type { DriftWay, Row, ShotBody, ShotUse } from '@eskovan/core/document';
import { Line, NumberField, Select } from '../../kit/index.ts';
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
/** A slight push, metres. */
const SLIGHT = 0.3;

interface ViewFieldsProps {
  open: OpenReel;
  row: Row<'shot'>;
  use: Extract<ShotUse, { kind: 'view' }>;
}

/** How a held view is shown: its camera goes somewhere slowly, its number stands in the picture. */
export function ViewFields({ open, row, use }: ViewFieldsProps) {
  return (
    <>
      <Line label="Camera">
        <Select
          label="Camera of the shot"
          value={use.drift?.way ?? 'still'}
          options={DRIFTS}
          onChange={(way) => setShot(open, row, 'Camera', (body) => withDrift(body, way))}
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

function withDrift(body: ShotBody, way: DriftWay | 'still', distance = SLIGHT): ShotBody {
  if (body.use.kind !== 'view') return body;
  const { drift: _, ...use } = body.use;
  return { ...body, use: way === 'still' ? use : { ...use, drift: { way, distance } } };
}
