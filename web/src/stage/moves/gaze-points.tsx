import { ownName, type Gaze, type MoveBody, type Row, type Vec3 } from '@eskovan/core/document';
import { PlanHandle } from '../../plan/plan-handle.tsx';
import { usePlan } from '../../plan/plan.tsx';
import { GazeLineLayer } from './gaze-line-layer.tsx';
import { editGazeOf } from './gaze-line.ts';

/** Half the size of its mark, pixels. */
const HALF = 6;

type PlacedGaze = Extract<Gaze, { point: Vec3 }>;
const isPlaced = (gaze: Gaze): gaze is PlacedGaze => 'point' in gaze;

/** The same gaze at another place of the plan, as high as it was: of an object, at another place on it or beside it. */
const movedTo = (gaze: Gaze, x: number, z: number): Gaze =>
  isPlaced(gaze) ? { ...gaze, point: [x, gaze.point[1], z] } : gaze;

/** What a move looks at, on the plan: each place is dragged, or moved by arrows. */
export function GazePoints({ row, body }: { row: Row<'move'> | null; body: MoveBody | null }) {
  if (!row || !body || !('gaze' in body)) return null;
  const all = [
    { span: null, gaze: body.gaze, label: 'throughout' },
    ...(body.gazeSpans ?? []).map(({ id, gaze }, i) => ({ span: id, gaze, label: `gaze ${i + 1}` })),
  ];
  return all.map(({ span, gaze, label }) =>
    gaze.kind === 'line' ? (
      <GazeLineLayer
        key={span}
        gaze={gaze}
        label={label}
        onPath={(change) =>
          editGazeOf(row, span, 'The line of the eye', (now) =>
            now.kind === 'line' ? { ...now, path: change(now.path) } : now,
          )
        }
      />
    ) : isPlaced(gaze) ? (
      <GazePoint
        key={span}
        gaze={gaze}
        label={label}
        onMove={(x, z) =>
          editGazeOf(row, span, span === null ? 'Look elsewhere' : 'Look elsewhere for a while', (now) =>
            movedTo(now, x, z),
          )
        }
      />
    ) : null,
  );
}

interface GazePointProps {
  gaze: PlacedGaze;
  label: string;
  onMove: (x: number, z: number) => void;
}

function GazePoint({ gaze, label, onMove }: GazePointProps) {
  const { scale } = usePlan();
  const [x, , z] = gaze.point;
  const r = HALF / scale;
  const what = gaze.kind === 'object' ? ownName(gaze.name) : 'a place';
  return (
    <PlanHandle x={x} z={z} label={`Looks at ${what}, ${label}`} onMove={onMove}>
      <title>{`Looks at ${what}`}</title>
      <circle
        cx={x}
        cy={z}
        r={r}
        fill="var(--paper)"
        fillOpacity="0.85"
        stroke="var(--ochre)"
        strokeWidth={2 / scale}
      />
      <circle cx={x} cy={z} r={r / 3} fill="var(--ochre)" />
      {/* Lines to all sides: it is aimed at, not stood on. */}
      <path
        d={`M${x - 1.7 * r} ${z}h${0.7 * r}M${x + r} ${z}h${0.7 * r}M${x} ${z - 1.7 * r}v${0.7 * r}M${x} ${z + r}v${0.7 * r}`}
        stroke="var(--ochre)"
        strokeWidth={2 / scale}
      />
    </PlanHandle>
  );
}
